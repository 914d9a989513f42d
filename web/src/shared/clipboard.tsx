import {
  createContext,
  useCallback,
  useContext,
  useEffect,
  useEffectEvent,
  useMemo,
  useRef,
  useState,
  type ReactNode,
} from "react";
import { Problem } from "../api/client";
import { isDue, put, said, type Clip } from "../domain/clipboard";
import { useNow } from "./useNow";

type Clipboard = {
  /** Puts a text there. A secret is emptied after the seconds of the safeguard. */
  copy: (what: string, text: string, options?: { secret?: boolean }) => Promise<void>;
  clip: Clip | null;
  /** A page that is not in front may not write: the window that is, or null for this one. */
  writeThrough: (other: Window | null) => void;
  emptyNow: () => void;
  dismiss: () => void;
};

const Context = createContext<Clipboard | null>(null);

/** Whether what is on the clipboard is certainly no longer ours. Unknown counts as ours. */
async function certainlyOther(text: string, navigator: Navigator): Promise<boolean> {
  try {
    const permission = await navigator.permissions.query({
      name: "clipboard-read" as PermissionName,
    });
    if (permission.state !== "granted") return false;
    return (await navigator.clipboard.readText()) !== text;
  } catch {
    return false;
  }
}

export function ClipboardProvider({
  clearAfterS,
  children,
}: {
  clearAfterS: number;
  children: ReactNode;
}) {
  const [clip, setClip] = useState<Clip | null>(null);
  const ours = useRef("");
  const other = useRef<Window | null>(null);
  const front = () => other.current ?? window;
  const emptying = useRef(false);

  const copy = useCallback(
    async (what: string, text: string, options: { secret?: boolean } = {}) => {
      try {
        await front().navigator.clipboard.writeText(text);
      } catch {
        throw new Problem("clipboard_refused");
      }
      const secret = options.secret ?? true;
      ours.current = secret ? text : "";
      setClip(put(what, Date.now(), secret ? clearAfterS : 0));
    },
    [clearAfterS],
  );

  const writeThrough = useCallback((through: Window | null) => {
    other.current = through;
  }, []);

  const empty = useCallback(async () => {
    if (!front().document.hasFocus()) {
      setClip((c) => c && { ...c, state: "waiting" });
      return;
    }
    // A second call while one is under way would take what that one wrote for another's.
    if (emptying.current) return;
    emptying.current = true;
    try {
      if (await certainlyOther(ours.current, front().navigator)) {
        ours.current = "";
        setClip((c) => c && { ...c, state: "replaced" });
        return;
      }
      await front().navigator.clipboard.writeText("");
      ours.current = "";
      setClip((c) => c && { ...c, state: "emptied" });
    } catch {
      setClip((c) => c && { ...c, state: "waiting" });
    } finally {
      emptying.current = false;
    }
  }, []);

  const onLook = useEffectEvent(() => {
    if (clip && isDue(clip, Date.now())) void empty();
  });
  const onCopied = useEffectEvent(() => {
    if (!clip) return;
    ours.current = "";
    setClip({ ...clip, state: "replaced" });
  });
  useEffect(() => {
    const look = () => onLook();
    const onCopy = () => onCopied();
    const timer = window.setInterval(look, 500);
    window.addEventListener("focus", look);
    document.addEventListener("copy", onCopy);
    document.addEventListener("cut", onCopy);
    return () => {
      window.clearInterval(timer);
      window.removeEventListener("focus", look);
      document.removeEventListener("copy", onCopy);
      document.removeEventListener("cut", onCopy);
    };
  }, []);

  const value = useMemo(
    () => ({
      copy,
      clip,
      writeThrough,
      emptyNow: () => void empty(),
      dismiss: () => setClip(null),
    }),
    [copy, clip, empty, writeThrough],
  );
  return <Context.Provider value={value}>{children}</Context.Provider>;
}

export function useClipboard(): Clipboard {
  const value = useContext(Context);
  if (!value) throw new Error("no clipboard here");
  return value;
}

/** What was put on the clipboard and when; never what is on it. */
export function ClipboardNote() {
  const { clip, emptyNow, dismiss } = useClipboard();
  return clip && <ClipLine clip={clip} emptyNow={emptyNow} dismiss={dismiss} />;
}

function ClipLine(props: { clip: Clip; emptyNow: () => void; dismiss: () => void }) {
  const { clip, emptyNow, dismiss } = props;
  // What was just put there may be newer than the last second that was counted.
  const now = Math.max(useNow(1000), clip.putAt);
  const open = clip.state === "there" || clip.state === "waiting";
  return (
    <div className="strip" role="status" aria-live="polite">
      <span aria-hidden="true">{said(clip, now)}</span>
      <span className="visually-hidden">{said(clip, clip.putAt)}</span>
      {open && clip.dueAt !== null && (
        <button type="button" className="link" onClick={emptyNow}>
          empty it now
        </button>
      )}
      <button type="button" className="link" onClick={dismiss}>
        hide this line
      </button>
    </div>
  );
}
