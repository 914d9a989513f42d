import { Modal } from "antd";
import { KEY_SHEET } from "./commands";

export function KeySheet({ onClose }: { onClose: () => void }) {
  return (
    <Modal open title="Keys" footer={null} onCancel={onClose} width={1020} centered>
      <div style={{ columns: 3, columnGap: 36 }}>
        {KEY_SHEET.map((part) => (
          <section key={part.where} style={{ breakInside: "avoid", marginBottom: 14 }}>
            <h3>{part.where}</h3>
            <dl className="facts small" style={{ gridTemplateColumns: "100px 1fr" }}>
              {part.keys.map(([key, does]) => (
                <KeyLine key={key} name={key} does={does} />
              ))}
            </dl>
          </section>
        ))}
      </div>
    </Modal>
  );
}

function KeyLine({ name, does }: { name: string; does: string }) {
  return (
    <>
      <dt style={{ padding: "4px 0" }}>
        <kbd>{name}</kbd>
      </dt>
      <dd style={{ padding: "4px 0" }}>{does}</dd>
    </>
  );
}
