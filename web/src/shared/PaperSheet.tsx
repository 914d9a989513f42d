import { useEffect, useState } from "react";
import { createPortal } from "react-dom";

/** Prints a passphrase to keep on paper: large and plain, with room to write, and with nothing
 * that says what it opens. It stands in the page only while the browser prints. */
export function usePaperSheet() {
  const [text, setText] = useState<string | null>(null);
  useEffect(() => {
    if (text === null) return;
    const done = () => setText(null);
    window.addEventListener("afterprint", done);
    window.print();
    return () => window.removeEventListener("afterprint", done);
  }, [text]);
  const sheet =
    text === null
      ? null
      : createPortal(
          <div className="paper-sheet" translate="no">
            <p>{text}</p>
            {Array.from({ length: 6 }, (_, i) => (
              <hr key={i} />
            ))}
          </div>,
          document.body,
        );
  return { sheet, print: setText };
}
