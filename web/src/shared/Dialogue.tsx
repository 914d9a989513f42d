import { Modal, type ModalProps } from "antd";
import { useEffect, useRef } from "react";

const FIELD =
  'input:not([type="hidden"]):not(:disabled), textarea:not(:disabled), select:not(:disabled)';

/** A dialogue begins in its first field, or what it marks with `data-begins`, else at the answer that changes nothing;
 * its end gives the focus back to what opened it, or to the view's heading where that is gone. */
export function Dialogue({ afterOpenChange, children, ...rest }: ModalProps) {
  const body = useRef<HTMLDivElement>(null);
  const opener = useRef<Element | null>(null);
  const isOpen = rest.open ?? false;

  useEffect(() => {
    if (!isOpen) return;
    opener.current = document.activeElement;
    return () => {
      const back = opener.current;
      // What was typed in the dialogue's place meanwhile keeps the focus.
      setTimeout(() => giveBack(back));
    };
  }, [isOpen]);

  const begin = () => {
    const held = body.current?.contains(document.activeElement) ?? false;
    if (held && document.activeElement?.matches(FIELD)) return;
    const field = body.current?.querySelector<HTMLElement>(
      '[data-begins], input[type="radio"]:checked',
    );
    (field ?? body.current?.querySelector<HTMLElement>(FIELD) ?? calmAnswer(body.current))?.focus();
  };
  return (
    <Modal
      {...rest}
      afterOpenChange={(open) => {
        if (open) begin();
        afterOpenChange?.(open);
      }}
    >
      <div ref={body}>{children}</div>
    </Modal>
  );
}

/** The button that leaves all as it is, or the dialogue's first one. */
function calmAnswer(body: HTMLElement | null): HTMLElement | null {
  const dialogue = body?.closest('[role="dialog"]');
  return (
    dialogue?.querySelector<HTMLElement>(".ant-modal-footer button") ??
    body?.querySelector<HTMLElement>("button, a[href]") ??
    null
  );
}

function giveBack(opener: Element | null): void {
  const at = document.activeElement;
  if (at !== null && at !== document.body && at.closest('[role="dialog"]') === null) return;
  if (opener instanceof HTMLElement && opener.isConnected && opener !== document.body) {
    opener.focus();
    return;
  }
  const heading = document.querySelector<HTMLElement>("main h1");
  if (!heading) return;
  heading.tabIndex = -1;
  heading.focus();
}
