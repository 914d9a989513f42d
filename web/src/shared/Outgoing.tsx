import type { ReactNode } from "react";

type Props = {
  secret: string;
  /** The person copies a selection: the whole secret is to go, sealed first. */
  onCopy: () => void;
  /** The person drags it away: it is to be sealed at once. */
  onDrag: () => void;
  children: ReactNode;
};

/** A shown secret that may leave the page by selection or drag, and never unnoticed. */
export function Outgoing({ secret, onCopy, onDrag, children }: Props) {
  return (
    <div
      className="outgoing-div"
      onCopy={(event) => {
        event.preventDefault();
        onCopy();
      }}
      onDragStart={(event) => {
        event.dataTransfer.setData("text/plain", secret);
        event.dataTransfer.effectAllowed = "copy";
        onDrag();
      }}
    >
      {children}
    </div>
  );
}
