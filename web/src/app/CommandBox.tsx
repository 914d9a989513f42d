import { useQuery } from "@tanstack/react-query";
import { useLayoutEffect, useMemo, useRef, useState, type KeyboardEvent } from "react";
import { useNavigate } from "react-router";
import { queries } from "../api/queries";
import { haystack, matches, nearest } from "../domain/search";
import { FURTHER, VIEWS } from "./commands";
import { useRowPointer } from "../shared/useRowPointer";

const SHOWN = 9;

type Line = { id: string; label: string; beside: string; act: () => void };

/** Find a login as you type, or go somewhere. */
export function CommandBox({ onClose, onLock }: { onClose: () => void; onLock: () => void }) {
  const navigate = useNavigate();
  const { data } = useQuery(queries.logins());
  const [typed, setTyped] = useState("");
  const [at, setAt] = useState(0);
  const box = useRef<HTMLDialogElement>(null);
  const field = useRef<HTMLInputElement>(null);
  const list = useRef<HTMLDivElement>(null);
  const hays = useMemo(
    () => (data?.logins ?? []).map((login) => ({ login, hay: haystack(login) })),
    [data],
  );

  const lines: Line[] = useMemo(() => {
    const acts: Line[] = [
      ...[...VIEWS, ...FURTHER].map((v) => ({
        id: v.path,
        label: v.label,
        beside: `key ${v.key}`,
        act: () => void navigate(v.path),
      })),
      { id: "new", label: "New login", beside: "", act: () => void navigate("/logins/new") },
      { id: "lock", label: "Lock the vault", beside: "key L", act: onLock },
    ].filter((line) => matches(line.label.toLowerCase(), typed));
    if (!typed.trim()) return acts.slice(0, SHOWN + 2);
    const hit = hays.filter((h) => matches(h.hay, typed)).map((h) => h.login);
    const found = nearest(hit, typed)
      .slice(0, SHOWN)
      .map((login) => ({
        id: login.login_id,
        label: login.title,
        beside: [login.user_name, login.domain].filter(Boolean).join(" · "),
        act: () => void navigate(`/logins/${login.login_id}`),
      }));
    return [...found, ...acts.slice(0, 3)];
  }, [typed, hays, navigate, onLock]);

  // At once, and without a motion: the next key is typed into it already.
  useLayoutEffect(() => {
    box.current?.showModal();
    field.current?.focus();
  }, []);

  const run = (line: Line | undefined) => {
    if (!line) return;
    onClose();
    line.act();
  };
  useRowPointer(list, { choose: (index) => run(lines[index]), over: setAt });
  const onKey = (event: KeyboardEvent) => {
    if (event.key === "ArrowDown") setAt(Math.min(lines.length - 1, at + 1));
    else if (event.key === "ArrowUp") setAt(Math.max(0, at - 1));
    else if (event.key === "Enter") run(lines[at]);
    else return;
    event.preventDefault();
  };

  return (
    <dialog
      ref={box}
      className="command-box"
      aria-label="Find a login, or do something"
      onCancel={onClose}
      onPointerDown={(event) => event.target === box.current && onClose()}
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
        placeholder="Title, user name, address, tag…"
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
        {lines.length === 0 && <p className="quiet item">Nothing of that name.</p>}
      </div>
    </dialog>
  );
}
