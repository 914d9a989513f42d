import { Button } from "antd";
import { useEffect, useState, type ReactNode } from "react";
import { createPortal } from "react-dom";
import { nonceOf } from "./nonce";
import { listenForKeys } from "./useKeys";
import { ClipboardNote, useClipboard } from "./clipboard";

const WIDTH = 400;
const HEIGHT = 700;

type PictureInPicture = {
  requestWindow: (size: { width: number; height: number }) => Promise<Window>;
};

/** A small window that stays beside the site's own: Document Picture-in-Picture where the browser
 * has it, else a small window. It shows a part of this page, with its keys and its clipboard. */
export function useStripWindow() {
  const [strip, setStrip] = useState<Window | null>(null);
  const { writeThrough } = useClipboard();

  useEffect(() => {
    if (!strip) return;
    const stopKeys = listenForKeys(strip);
    const gone = () => setStrip(null);
    // The dialogues listen for Escape in the page's own window alone.
    const onEscape = (event: KeyboardEvent) => {
      const close = strip.document.querySelector<HTMLElement>(
        '[role="dialog"] [aria-label="Close"]',
      );
      if (event.key === "Escape") close?.click();
    };
    strip.addEventListener("keydown", onEscape);
    strip.addEventListener("pagehide", gone);
    writeThrough(strip);
    const stopStyles = mirrorStyles(strip.document);
    return () => {
      stopKeys();
      stopStyles();
      writeThrough(null);
      strip.removeEventListener("pagehide", gone);
      strip.removeEventListener("keydown", onEscape);
      strip.close();
    };
  }, [strip, writeThrough]);

  const open = async () => {
    if (strip) {
      strip.focus();
      return;
    }
    const inPicture = (window as { documentPictureInPicture?: PictureInPicture })
      .documentPictureInPicture;
    const size = `popup,width=${WIDTH},height=${HEIGHT}`;
    const found = inPicture
      ? await inPicture.requestWindow({ width: WIDTH, height: HEIGHT })
      : window.open("", "", size);
    if (found) setStrip(found);
  };

  return { strip, open, close: () => setStrip(null) };
}

/** The steps in their place on the page, or in the strip with a word where they were. */
export function StripOrPage(props: {
  beside: ReturnType<typeof useStripWindow>;
  title: string;
  /** Where it is a part of a view that has a heading of its own. */
  within?: boolean;
  children: ReactNode;
}) {
  const { beside, title, within, children } = props;
  if (!beside.strip) return children;
  return (
    <>
      <div className="strip-steps">
        {within ? <h2>{title}</h2> : <h1>{title}</h1>}
        <p>The steps are in the small window, to stand beside the site.</p>
        <div>
          <Button onClick={beside.close}>
            Bring them back <kbd>W</kbd>
          </Button>
        </div>
      </div>
      <InStrip strip={beside.strip}>
        {children}
        <ClipboardNote />
      </InStrip>
    </>
  );
}

/** Its content, in the strip where there is one, else in its place on the page. */
function InStrip({ strip, children }: { strip: Window | null; children: ReactNode }) {
  if (!strip) return children;
  return createPortal(<main className="strip-window">{children}</main>, strip.document.body);
}

/** The page's styles in the other document, also those that come later. */
function mirrorStyles(other: Document): () => void {
  const root = document.documentElement;
  other.documentElement.dataset.theme = root.dataset.theme;
  other.documentElement.lang = root.lang;
  other.title = "Beside the site · New Knot";
  const copies = new Map<Node, HTMLElement>();
  const mirror = () => {
    for (const node of document.head.querySelectorAll<HTMLElement>(
      'style, link[rel="stylesheet"]',
    )) {
      const former = copies.get(node);
      if (former && (former.nodeName === "LINK" || former.textContent === node.textContent))
        continue;
      const copy = other.createElement(node.nodeName.toLowerCase());
      if (node instanceof HTMLLinkElement) {
        copy.setAttribute("rel", "stylesheet");
        copy.setAttribute("href", node.href);
      } else {
        copy.nonce = nonceOf();
        copy.textContent = node.textContent;
      }
      other.head.append(copy);
      former?.remove();
      copies.set(node, copy);
    }
  };
  mirror();
  const watch = new MutationObserver(mirror);
  watch.observe(document.head, { childList: true, subtree: true, characterData: true });
  return () => watch.disconnect();
}
