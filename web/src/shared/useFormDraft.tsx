import { useCallback, useEffect, useRef, useState } from "react";
import { answer, client, Problem, type Schema, sessionToken } from "../api/client";
import { dayAndTime } from "../domain/moments";
import { justEntered } from "./entered";
import { leave, noteSaved, noteUnsaved } from "./unsaved";
import { useNow } from "./useNow";

const AFTER_MS = 2000;
/** Within so long the form shows what came back. */
const SETTLED_MS = 100;

export type FormDraft = {
  /** To be called at each change that a person makes. */
  touched: () => void;
  /** What was saved, or thrown away, is kept no longer. */
  forget: () => Promise<void>;
  /** Since when it was kept, where the form came back as it was left. */
  since: string | null;
  /** Since when something is kept that did not come back by itself. */
  offered: string | null;
  bringBack: () => void;
  /** Goes on, or asks first where something is not saved. */
  leave: (goOn: () => void) => void;
};

/**
 * Keeps what is half-typed in a form two seconds after the last change, sealed in the vault, and
 * gives it back: by itself where the vault was opened again on this page (a lock neither asks nor
 * waits), else when it is asked for, since one who opens a form types at once. `read` and `restore`
 * are of the form, `form` names it; a change of `watched` is one of what is typed, and what it was
 * when the form was opened stands for nothing typed.
 */
export function useFormDraft<T>(
  form: string,
  read: () => T,
  restore: (content: T) => void,
  watched = "",
): FormDraft {
  const latest = useRef({ read, restore });
  const timer = useRef<ReturnType<typeof setTimeout> | null>(null);
  const ended = useRef(false);
  const restored = useRef(false);
  const opening = useRef(watched);
  const pristine = useRef(watched);
  const byHand = useRef(false);
  const [since, setSince] = useState<string | null>(null);
  const [held, setHeld] = useState<Schema["DraftOut"] | null>(null);

  const sending = useRef<Promise<unknown>>(Promise.resolve());
  const stopTimer = () => {
    if (timer.current !== null) clearTimeout(timer.current);
    timer.current = null;
  };
  const forget = useCallback(async () => {
    ended.current = true;
    byHand.current = false;
    noteSaved(form);
    stopTimer();
    setSince(null);
    setHeld(null);
    await sending.current;
    await client.DELETE("/drafts/{form}", { params: { path: { form } } }).catch(() => undefined);
  }, [form]);
  useEffect(() => () => noteSaved(form), [form]);

  const putBack = useCallback(
    (found: Schema["DraftOut"]) => {
      restored.current = true;
      latest.current.restore(found.content as T);
      setTimeout(() => (restored.current = false), SETTLED_MS);
      setHeld(null);
      setSince(found.saved_at);
      noteUnsaved(form, forget);
    },
    [form, forget],
  );
  useEffect(() => {
    latest.current = { read, restore };
  });
  useEffect(() => {
    let live = true;
    ended.current = false;
    const byItself = justEntered();
    answer(client.GET("/drafts/{form}", { params: { path: { form } } })).then(
      (found) => {
        if (!live || !found) return;
        if (byItself && timer.current === null) putBack(found);
        else setHeld(found);
      },
      (error: unknown) => {
        // A vault that is locked meanwhile says so elsewhere.
        if (!(error instanceof Problem)) throw error;
      },
    );
    return () => {
      live = false;
    };
  }, [form, putBack]);
  const keep = useCallback(() => {
    timer.current = null;
    // Where the lock was quicker, nothing is sent to a vault that would refuse it.
    if (ended.current || sessionToken.get() === "") return;
    const params = { path: { form } };
    const body = { content: latest.current.read() };
    // What cannot be kept is still in the form.
    sending.current = client.PUT("/drafts/{form}", { params, body }).catch(() => undefined);
  }, [form]);
  useEffect(
    () => () => {
      // Left by a link or a key: the last two seconds are kept too.
      if (timer.current === null) return;
      clearTimeout(timer.current);
      keep();
    },
    [keep],
  );

  const changed = useCallback(() => {
    ended.current = false;
    noteUnsaved(form, forget);
    stopTimer();
    timer.current = setTimeout(keep, AFTER_MS);
  }, [form, keep, forget]);
  const touched = useCallback(() => {
    byHand.current = true;
    changed();
  }, [changed]);
  useEffect(() => {
    if (watched === opening.current) return;
    opening.current = watched;
    // What came back is kept already, since its own day; what was saved, or is as it was, is over.
    if (restored.current || (ended.current && watched === pristine.current)) return;
    if (watched === pristine.current && !byHand.current) void forget();
    else changed();
  }, [watched, changed, forget]);
  return {
    touched,
    forget,
    since,
    offered: held?.saved_at ?? null,
    bringBack: () => held && putBack(held),
    leave: (goOn) => leave(form, goOn),
  };
}

/** Said where a form came back as it was left, with the way to begin anew. */
export function DraftNote({ draft, onAnew }: { draft: FormDraft; onAnew: () => void }) {
  const now = useNow();
  if (draft.offered)
    return (
      <p className="small below-14" role="status">
        Half-typed here {dayAndTime(draft.offered, now)}, not saved.{" "}
        <button type="button" className="link" onClick={draft.bringBack}>
          Bring it back
        </button>{" "}
        <button type="button" className="link" onClick={() => void draft.forget()}>
          Let it go
        </button>
      </p>
    );
  if (!draft.since) return null;
  return (
    <p className="small below-14" role="status">
      As you left it {dayAndTime(draft.since, now)}, not saved yet.{" "}
      <button
        type="button"
        className="link"
        onClick={() => {
          void draft.forget().then(onAnew);
        }}
      >
        Begin anew
      </button>
    </p>
  );
}
