import { Modal, type ModalProps } from "antd";
import { useEffect, useRef, type KeyboardEvent } from "react";
import { focusHeading } from "./viewFocus";

const FIELD =
  'input:not([type="hidden"]):not(:disabled), textarea:not(:disabled), select:not(:disabled)';

type Props = ModalProps & {
  /** Enter in a field of one line gives its one answer: never one that deletes or gives away. */
  endsByEnter?: boolean;
};

/** A dialogue begins in its first field, or what it marks with `data-begins`, else at the answer that changes nothing;
 * its end gives the focus back to what opened it, or to the view's heading where that is gone. */
export function Dialogue({ afterOpenChange, children, endsByEnter, ...rest }: Props) {
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
    const dialogue = body.current?.closest('[role="dialog"]');
    const field = dialogue?.querySelector<HTMLElement>(
      '[data-begins], input[type="radio"]:checked',
    );
    (field ?? body.current?.querySelector<HTMLElement>(FIELD) ?? calmAnswer(body.current))?.focus();
    // What is to be changed is typed over.
    if (field instanceof HTMLInputElement && field.type === "text") field.select();
  };
  const onKey = (event: KeyboardEvent<HTMLDivElement>) => {
    const field = event.target as HTMLElement;
    if (event.key !== "Enter" || event.nativeEvent.isComposing || event.defaultPrevented) return;
    if (field.nodeName !== "INPUT" || field.matches('[type="checkbox"], [role="combobox"]')) return;
    event.preventDefault();
    // A number counts once its field is left.
    field.blur();
    requestAnimationFrame(() => answerOf(body.current)?.click());
  };
  return (
    <Modal
      {...rest}
      afterOpenChange={(open) => {
        if (open) begin();
        afterOpenChange?.(open);
      }}
    >
      {endsByEnter ? (
        // oxlint-disable-next-line jsx-a11y/no-static-element-interactions -- a field's own Enter
        <div ref={body} onKeyDown={onKey}>
          {children}
        </div>
      ) : (
        <div ref={body}>{children}</div>
      )}
    </Modal>
  );
}

/** The button of its one answer. */
function answerOf(body: HTMLElement | null): HTMLElement | null {
  const dialogue = body?.closest('[role="dialog"]');
  return dialogue?.querySelector<HTMLElement>(".ant-modal-footer .ant-btn-primary") ?? null;
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
  if (heading) focusHeading(heading);
}
