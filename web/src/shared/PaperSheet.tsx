import { useEffect, useState, type ReactNode } from "react";
import { createPortal } from "react-dom";

/** Prints what is to be kept on paper. It stands in the page only while the browser prints. */
export function usePrinted() {
  const [content, setContent] = useState<ReactNode>(null);
  useEffect(() => {
    if (content === null) return;
    const done = () => setContent(null);
    window.addEventListener("afterprint", done);
    window.print();
    return () => window.removeEventListener("afterprint", done);
  }, [content]);
  const sheet =
    content === null
      ? null
      : createPortal(
          <div className="paper-sheet" translate="no">
            {content}
          </div>,
          document.body,
        );
  return { sheet, print: setContent };
}

/** A passphrase on paper: large and plain, with room to write, and with nothing that says what it
 * opens. */
export function usePaperSheet() {
  const { sheet, print } = usePrinted();
  return {
    sheet,
    print: (text: string) =>
      print(
        <>
          <p>{text}</p>
          {Array.from({ length: 6 }, (_, i) => (
            <hr key={i} />
          ))}
        </>,
      ),
  };
}
