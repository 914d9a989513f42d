import { KEY_SHEET } from "./commands";
import { Dialogue } from "../shared/Dialogue";

export function KeySheet({ onClose }: { onClose: () => void }) {
  return (
    <Dialogue open title="Keys" footer={null} onCancel={onClose} width={1020} centered>
      <div className="key-sheet-div">
        {KEY_SHEET.map((part) => (
          <section key={part.where} className="key-sheet-section">
            <h2>{part.where}</h2>
            <dl className="facts small key-sheet-facts">
              {part.keys.map(([key, does]) => (
                <KeyLine key={key} name={key} does={does} />
              ))}
            </dl>
          </section>
        ))}
      </div>
    </Dialogue>
  );
}

function KeyLine({ name, does }: { name: string; does: string }) {
  return (
    <>
      <dt className="key-sheet-dt">
        <kbd>{name}</kbd>
      </dt>
      <dd className="key-sheet-dd">{does}</dd>
    </>
  );
}
