import { useRef, useState, type KeyboardEvent } from "react";
import { grouped } from "../domain/secretMarks";
import { spelled } from "../domain/spelling";
import { Dialogue } from "./Dialogue";

/** For sites that block pasting, and for the telephone: group by group, each character named. */
export function SpellOut(props: {
  secret: string;
  onClose: () => void;
  /** The small window that it is to open in; null for the page. */
  strip?: Window | null;
}) {
  const { secret, onClose, strip = null } = props;
  const groups = grouped(secret);
  const [at, setAt] = useState(0);
  const next = useRef<HTMLButtonElement>(null);
  const group = groups[at] ?? [];
  const onArrow = (event: KeyboardEvent) => {
    if (event.key === "ArrowRight") setAt(Math.min(groups.length - 1, at + 1));
    if (event.key === "ArrowLeft") setAt(Math.max(0, at - 1));
  };
  return (
    <Dialogue
      open
      title="Spell it out"
      footer={null}
      onCancel={onClose}
      width={strip ? 368 : 520}
      getContainer={() => strip?.document.body ?? document.body}
      afterOpenChange={(open) => open && next.current?.focus()}
    >
      <div className="stack" role="group" aria-label={`Group ${at + 1} of ${groups.length}`}>
        <p className="small quiet" aria-live="polite">
          Group {at + 1} of {groups.length}, characters {at * 4 + 1} to {at * 4 + group.length}
        </p>
        <table className="plain spelled" translate="no">
          <tbody>
            {group.map((c, i) => (
              <tr key={i}>
                <td className="quiet">{at * 4 + i + 1}</td>
                <td className="glyph">{c.text === " " ? "␣" : c.text}</td>
                <td>{spelled(c.text)}</td>
              </tr>
            ))}
          </tbody>
        </table>
        <div className="row">
          <button
            type="button"
            className="link"
            disabled={at === 0}
            onClick={() => setAt(at - 1)}
            onKeyDown={onArrow}
          >
            ← the group before
          </button>
          <button
            type="button"
            className="link"
            ref={next}
            onKeyDown={onArrow}
            disabled={at === groups.length - 1}
            onClick={() => setAt(at + 1)}
          >
            the next group →
          </button>
        </div>
      </div>
    </Dialogue>
  );
}
