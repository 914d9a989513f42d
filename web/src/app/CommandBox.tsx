import { useQuery, useQueryClient } from "@tanstack/react-query";
import {
  useEffect,
  useCallback,
  useLayoutEffect,
  useMemo,
  useRef,
  useState,
  type KeyboardEvent,
} from "react";
import { useLocation, useNavigate } from "react-router";
import { answer, client, type Schema } from "../api/client";
import { queries } from "../api/queries";
import { HOW_ALIKE, maybeAddress } from "../domain/address";
import { matches } from "../domain/search";
import { useLoginActs } from "../features/logins/useLoginActs";
import { FURTHER, VIEWS } from "./commands";
import { ProblemNote } from "../shared/ProblemNote";
import { opening } from "../shared/typedAhead";
import { useRowPointer } from "../shared/useRowPointer";
import { useSettled } from "../shared/useSettled";
import { focusViewOnceThere } from "../shared/viewFocus";

const SHOWN = 9;
const SETTLES_MS = 120;

type Line = {
  id: string;
  label: string;
  beside: string;
  act: () => void;
  /** Where the line is a login. */
  login?: Schema["FoundLogin"];
};

/** By chord, as letters are typed into the box. */
type LoginAct = "u" | "y";

/** Whose a pasted address is: asked of the server, in the body of a call; null until it is known. */
function useAddressSeen(typed: string): Schema["AddressSeenOut"] | null {
  const asked = useSettled(maybeAddress(typed) ? typed.trim() : "", SETTLES_MS);
  const [seen, setSeen] = useState<{ of: string; found: Schema["AddressSeenOut"] } | null>(null);
  useEffect(() => {
    if (!asked) return;
    let live = true;
    answer(client.POST("/addresses", { body: { address: asked } })).then(
      (found) => live && setSeen({ of: asked, found }),
      // What no browser opens is a name like any other.
      () => live && setSeen(null),
    );
    return () => {
      live = false;
    };
  }, [asked]);
  return seen?.of === typed.trim() ? seen.found : null;
}

/** The lines for an address: logins of its site, else those that it only resembles. */
function addressLines(
  seen: Schema["AddressSeenOut"] | null,
  open: (loginId: string) => void,
): Line[] {
  if (!seen) return [];
  const own = seen.logins.map((one) => ({
    id: one.login_id,
    label: one.title,
    beside: [one.user_name, `the site of ${seen.host}`].filter(Boolean).join(" · "),
    act: () => open(one.login_id),
  }));
  const alike = seen.resembles.flatMap((like) =>
    like.logins.map((one) => ({
      id: one.login_id,
      label: `Not ${one.title}, whose site is ${like.domain}`,
      beside: HOW_ALIKE[like.how],
      act: () => open(one.login_id),
    })),
  );
  return [...own, ...alike];
}

/** Find a login as you type, or whose a pasted address is, or go somewhere. */
export function CommandBox({ onClose, onLock }: { onClose: () => void; onLock: () => void }) {
  const navigate = useNavigate();
  const { pathname } = useLocation();
  const queryClient = useQueryClient();
  const acts = useLoginActs();
  const [typed, setTyped] = useState("");
  const [at, setAt] = useState(0);
  const box = useRef<HTMLDialogElement>(null);
  const field = useRef<HTMLInputElement>(null);
  const list = useRef<HTMLDivElement>(null);
  const sought = typed.trim();
  const answered = useQuery({ ...queries.foundLogins(sought), enabled: sought !== "" });
  const found = answered.data;
  const waits = sought !== "" && (answered.isPending || answered.isPlaceholderData);
  const seen = useAddressSeen(typed);

  const go = useCallback(
    (path: string) => {
      void navigate(path);
      // A view that is open already does not arrive: it takes the focus all the same.
      if (path === pathname) setTimeout(focusViewOnceThere);
    },
    [navigate, pathname],
  );
  const linesOf = useCallback(
    (of: Schema["FoundLogin"][]): Line[] => {
      const views: Line[] = [
        ...[...VIEWS, ...FURTHER].map((v) => ({
          id: v.path,
          label: v.label,
          beside: `key ${v.key}`,
          act: () => go(v.path),
        })),
        { id: "new", label: "New login", beside: "", act: () => go("/logins/new") },
        { id: "lock", label: "Lock the vault", beside: "key L", act: onLock },
      ].filter((line) => matches(line.label, typed));
      if (!typed.trim()) return views.slice(0, SHOWN + 2);
      const named = of.map((login) => ({
        id: login.login_id,
        label: login.title,
        beside: [login.user_name, login.domain].filter(Boolean).join(" · "),
        act: () => go(`/logins/${login.login_id}`),
        login,
      }));
      const whose = addressLines(seen, (id) => go(`/logins/${id}`));
      const others = named.filter((one) => whose.every((line) => line.id !== one.id));
      return [...whose.slice(0, SHOWN), ...others, ...views.slice(0, 3)];
    },
    [typed, go, onLock, seen],
  );
  const lines = useMemo(() => linesOf(found ?? []), [linesOf, found]);

  // At once, and without a motion: the next key is typed into it already.
  useLayoutEffect(() => {
    const dialogue = box.current;
    dialogue?.showModal();
    field.current?.focus();
    // Its end gives the focus back to what had it, which taking it away would not.
    return () => dialogue?.close();
  }, []);

  const run = (line: Line | undefined) => {
    if (!line) return;
    onClose();
    line.act();
  };
  /** To what was typed, and not to what was found of it so far. */
  const meant = async (): Promise<Line | undefined> => {
    if (!waits) return lines[at];
    const none: Schema["FoundLogin"][] = [];
    return linesOf(await queryClient.fetchQuery(queries.foundLogins(sought)).catch(() => none))[at];
  };
  const enter = () => {
    if (!waits) return run(lines[at]);
    onClose();
    // What is typed meanwhile is held.
    void opening(meant()).then((line) => line?.act());
  };
  const copy = async (what: LoginAct) => {
    const login = (await meant())?.login;
    if (login && what === "u") await acts.copyUserName(login);
    if (!login?.has_secret || what !== "y") return;
    // Out of the way of the passphrase, where that is asked first; then as it was, with what failed.
    box.current?.close();
    await opening(acts.copySecret(login));
    box.current?.showModal();
    field.current?.focus();
  };
  useRowPointer(list, { choose: (index) => run(lines[index]), over: setAt });
  const onKey = (event: KeyboardEvent) => {
    if (event.key === "ArrowDown") setAt(Math.min(lines.length - 1, at + 1));
    else if (event.key === "ArrowUp") setAt(Math.max(0, at - 1));
    else if (event.key === "Enter") enter();
    else if (event.altKey && event.code === "KeyU") void copy("u");
    else if (event.altKey && event.code === "KeyY") void copy("y");
    else return;
    event.preventDefault();
  };

  return (
    <dialog
      ref={box}
      className="command-box"
      aria-label="Find a login, or do something"
      onCancel={onClose}
      onPointerDown={(event) => {
        if (event.target !== box.current) return;
        // Or the focus would go to what lies below.
        event.preventDefault();
        onClose();
      }}
    >
      <input
        ref={field}
        className="command-field"
        role="combobox"
        aria-expanded="true"
        aria-controls="command-lines"
        aria-activedescendant={lines[at] ? `line-${lines[at].id}` : undefined}
        aria-label="Find a login, or do something"
        autoComplete="off"
        spellCheck={false}
        placeholder="Title, user name, tag, or a pasted address…"
        onChange={(event) => {
          setTyped(event.target.value);
          setAt(0);
        }}
        onKeyDown={onKey}
      />
      <div ref={list} id="command-lines" role="listbox" aria-label="Found">
        {lines.map((line, i) => (
          <div
            key={line.id}
            id={`line-${line.id}`}
            role="option"
            tabIndex={-1}
            aria-selected={i === at}
            className={i === at ? "item at row spread" : "item row spread"}
            data-index={i}
          >
            <span>{line.label}</span>
            <span className="small quiet">{line.beside}</span>
          </div>
        ))}
      </div>
      {lines[at]?.login && (
        <p className="command-acts small quiet">
          <kbd>Enter</kbd> opens it, <kbd>Alt U</kbd> copies its user name
          {lines[at].login.has_secret && (
            <>
              , <kbd>Alt Y</kbd> its secret
            </>
          )}
        </p>
      )}
      <ProblemNote problem={acts.problem} />
      {lines.length === 0 && !waits && (
        <p className="quiet item">
          {seen ? `No login of yours is at ${seen.host}.` : "Nothing of that name."}
        </p>
      )}
    </dialog>
  );
}
