import { Modal, type ModalProps } from "antd";
import { useEffect, useRef, type KeyboardEvent } from "react";
import { focusHeading } from "./viewFocus";

const FIELD =
  'input:not([type="hidden"], [hidden]):not(:disabled), textarea:not(:disabled), select:not(:disabled)';

/** What had the focus as a dialogue opened, and the same of the one that it opened over. */
type Opener = { element: Element | null; below: Opener | null };
let newest: Opener | null = null;

type Props = ModalProps & {
  /** Enter in a field of one line gives its one answer: never one that deletes or gives away. */
  endsByEnter?: boolean;
};

/** A dialogue begins in its first field, or what it marks with `data-begins`, else at the answer that changes nothing;
 * its end gives the focus back to what opened it, or to the view's heading where that is gone. */
export function Dialogue({ afterOpenChange, children, endsByEnter, ...rest }: Props) {
  const body = useRef<HTMLDivElement>(null);
  const waiting = useRef<MutationObserver | null>(null);
  const isOpen = rest.open ?? false;

  useEffect(() => {
    if (!isOpen) return;
    const opener: Opener = { element: document.activeElement, below: newest };
    newest = opener;
    return () => {
      if (newest === opener) newest = opener.below;
      waiting.current?.disconnect();
      // What was typed in the dialogue's place meanwhile keeps the focus.
      setTimeout(() => giveBack(opener));
    };
  }, [isOpen]);

  const begin = () => {
    const held = body.current?.contains(document.activeElement) ?? false;
    if (held && document.activeElement?.matches(FIELD)) return;
    const place = beginning(body.current);
    if (place) beginAt(place);
    else waiting.current = whenThere(body.current, beginAt);
  };
  const onKey = (event: KeyboardEvent<HTMLDivElement>) => {
    const field = event.target as HTMLElement;
    if (event.key !== "Enter" || event.nativeEvent.isComposing || event.defaultPrevented) return;
    if (field.nodeName !== "INPUT" || field.matches('[type="checkbox"], [role="combobox"]')) return;
    event.preventDefault();
    // Once what the key ended, a number say, is taken in. Of its own window: the strip's may be the only one drawn.
    field.ownerDocument.defaultView?.requestAnimationFrame(() => answerOf(body.current)?.click());
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

/** What a dialogue marks, its first field, or its calm answer. */
function beginning(body: HTMLElement | null): HTMLElement | null {
  const dialogue = body?.closest('[role="dialog"]');
  return (
    dialogue?.querySelector<HTMLElement>('[data-begins], input[type="radio"]:checked') ??
    body?.querySelector<HTMLElement>(FIELD) ??
    calmAnswer(body)
  );
}

function beginAt(place: HTMLElement): void {
  place.focus();
  // What is to be changed is typed over.
  if (place instanceof HTMLInputElement && place.type === "text" && "begins" in place.dataset)
    place.select();
}

/** What it holds may be asked for first: it begins there, unless the focus was moved meanwhile. */
function whenThere(
  body: HTMLElement | null,
  then: (place: HTMLElement) => void,
): MutationObserver | null {
  if (!body) return null;
  const held = document.activeElement;
  const observer = new MutationObserver(() => {
    const place = beginning(body);
    if (!place && document.activeElement === held) return;
    observer.disconnect();
    if (place && document.activeElement === held) then(place);
  });
  observer.observe(body, { childList: true, subtree: true });
  return observer;
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

function giveBack(opener: Opener): void {
  const at = document.activeElement;
  if (at !== null && at !== document.body && at.closest('[role="dialog"]') === null) return;
  for (let one: Opener | null = opener; one; one = one.below) {
    const { element } = one;
    if (element instanceof HTMLElement && element.isConnected && element !== document.body) {
      element.focus();
      return;
    }
  }
  const heading = document.querySelector<HTMLElement>("main h1");
  if (heading) focusHeading(heading);
}
