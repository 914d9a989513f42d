import { useQuery } from "@tanstack/react-query";
import { Button, Input, type InputRef } from "antd";
import { useDeferredValue, useMemo, useRef, useState } from "react";
import { Link, useNavigate } from "react-router";
import type { Schema } from "../../api/client";
import { queries } from "../../api/queries";
import { FINDING_LABELS, kindsByLogin, type FindingKind } from "../../domain/findings";
import { age, count, day } from "../../domain/moments";
import { haystack, matches } from "../../domain/search";
import { byFindings, bySite } from "../../domain/siteGroups";
import { SmallRuler } from "../../shared/GuessRuler";
import { FindingShape } from "../../shared/icons";
import { ProblemNote } from "../../shared/ProblemNote";
import { useKeys } from "../../shared/useKeys";
import { useVirtualRows } from "../../shared/useVirtualRows";
import { useLoginActs } from "./useLoginActs";
import { useNow } from "../../shared/useNow";
import { useRowPointer } from "../../shared/useRowPointer";

const COLUMNS = {
  gridTemplateColumns: "minmax(190px, 1.2fr) minmax(130px, 1fr) 104px 92px 190px 66px",
};

export default function LoginsPage() {
  const navigate = useNavigate();
  const { data, error, isPending } = useQuery(queries.logins());
  const [typed, setTyped] = useState("");
  const [folder, setFolder] = useState<string | null>(null);
  const [gravest, setGravest] = useState(false);
  const worklist = useQuery(queries.worklist());
  const [at, setAt] = useState(0);
  const search = useRef<InputRef>(null);
  const sought = useDeferredValue(typed);
  const acts = useLoginActs();
  const now = useNow();

  const hays = useMemo(
    () => (data?.logins ?? []).map((login) => ({ login, hay: haystack(login) })),
    [data],
  );
  const { kinds, places } = useMemo(
    () => kindsByLogin(worklist.data?.findings ?? []),
    [worklist.data],
  );
  const rows = useMemo(() => {
    const found = hays
      .filter((h) => folder === null || h.login.folder === folder)
      .filter((h) => !sought.trim() || matches(h.hay, sought))
      .map((h) => h.login);
    return gravest ? byFindings(found, places) : bySite(found);
  }, [hays, sought, folder, gravest, places]);
  const logins = rows.flatMap((r) => (r.kind === "login" ? [r.login] : []));
  const here = Math.min(at, Math.max(0, logins.length - 1));
  const login = logins[here];
  const rowOf = rows.findIndex((r) => r.kind === "login" && r.login === login);
  const scroller = useRef<HTMLDivElement>(null);
  const virtual = useVirtualRows(scroller, rows.length, Math.max(0, rowOf), (i) =>
    rows[i]?.kind === "site" ? 32 : 51,
  );

  const move = (by: number) => setAt(Math.max(0, Math.min(logins.length - 1, here + by)));
  const open = (l: Schema["LoginRow"] | undefined) => l && void navigate(`/logins/${l.login_id}`);
  const loginAt = (index: number) => {
    const row = rows[index];
    return row?.kind === "login" ? row.login : undefined;
  };
  useRowPointer(scroller, {
    choose: (index) => {
      const pressed = loginAt(index);
      if (pressed) setAt(logins.indexOf(pressed));
    },
    open: (index) => open(loginAt(index)),
  });
  useKeys({
    ArrowDown: () => move(1),
    ArrowUp: () => move(-1),
    PageDown: () => move(10),
    PageUp: () => move(-10),
    Enter: () => open(login),
    n: () => void navigate("/logins/new"),
    f: () => search.current?.focus(),
    u: () => login && void acts.copyUserName(login),
    y: () => login && void acts.copySecret(login),
    o: () => login && acts.openSite(login),
    e: () => login && void navigate(`/logins/${login.login_id}/edit`),
    r: () => login && acts.rotate(login),
    s: () => login && void navigate(`/logins/${login.login_id}/sign-in`),
  });

  const folders = new Map<string, number>();
  for (const l of data?.logins ?? []) folders.set(l.folder, (folders.get(l.folder) ?? 0) + 1);

  return (
    <main className="page fills-height">
      <header className="row spread below-16">
        <div className="row gap-18">
          <h1>Logins</h1>
          <Input
            ref={search}
            className="wide-300"
            aria-label="Find as you type"
            placeholder="Find as you type  (F)"
            autoComplete="off"
            spellCheck={false}
            allowClear
            onChange={(event) => {
              setTyped(event.target.value);
              setAt(0);
            }}
            onKeyDown={(event) => {
              if (event.key === "ArrowDown") move(1);
              else if (event.key === "ArrowUp") move(-1);
              else if (event.key === "Enter") open(login);
              else if (event.key === "Escape") search.current?.blur();
              else return;
              event.preventDefault();
            }}
          />
          <span className="quiet small" role="status">
            {data &&
              `${logins.length.toLocaleString("en")} of ${count(data.logins.length, "login")}`}
          </span>
        </div>
        <div className="row">
          <Link to="/carry">Bring in</Link>
          <Link to="/logins/bin">Bin</Link>
          <Button type="primary" onClick={() => void navigate("/logins/new")}>
            New login <kbd>N</kbd>
          </Button>
        </div>
      </header>
      <ProblemNote problem={error ?? acts.problem} />
      {data && data.damaged.length > 0 && (
        <p className="problem">
          {count(data.damaged.length, "login")} cannot be read and are not in this list.
        </p>
      )}
      {!isPending && data?.logins.length === 0 ? (
        <div className="empty">
          <h2>No logins yet</h2>
          <p>
            Add the first with <kbd>N</kbd>, or bring a CSV file in: any order of columns will do.
          </p>
        </div>
      ) : (
        <div className="beside-facets">
          <div className="facets" role="group" aria-label="Folders">
            <FolderFacet
              label="All folders"
              n={data?.logins.length ?? 0}
              on={folder === null}
              onPick={() => setFolder(null)}
            />
            {[...folders].sort().map(([name, n]) => (
              <FolderFacet
                key={name}
                label={name || "in no folder"}
                n={n}
                on={folder === name}
                onPick={() => {
                  setFolder(name);
                  setAt(0);
                }}
              />
            ))}
          </div>
          <section aria-label="Logins" className="main-column">
            <div className="cols head" style={COLUMNS}>
              <span>Login</span>
              <span>Site</span>
              <span>Marked</span>
              <button
                type="button"
                className="link to-left"
                aria-pressed={gravest}
                onClick={() => {
                  setGravest(!gravest);
                  setAt(0);
                }}
              >
                Findings{gravest ? " ↓" : ""}
              </button>
              <span>Guesses, at the last check</span>
              <span className="right">Age</span>
            </div>
            <div ref={scroller} role="list" className="scrolls">
              <div style={{ height: virtual.height, position: "relative" }}>
                {virtual.items.map(({ index, start }) => {
                  const r = rows[index];
                  if (!r) return null;
                  const place = { position: "absolute", top: start, left: 0, right: 0 } as const;
                  if (r.kind === "site")
                    return (
                      <div
                        key={`site ${r.domain}`}
                        ref={virtual.measure}
                        data-index={index}
                        role="presentation"
                        className="item small quiet"
                        style={place}
                      >
                        {r.domain} · {r.count} logins
                      </div>
                    );
                  const isHere = r.login === login;
                  return (
                    <div
                      key={r.login.login_id}
                      role="listitem"
                      ref={virtual.measure}
                      data-index={index}
                      aria-current={isHere}
                      className={isHere ? "item at" : "item"}
                      style={r.inGroup ? { ...place, paddingLeft: 30 } : place}
                    >
                      <LoginLine
                        login={r.login}
                        kinds={kinds.get(r.login.login_id) ?? []}
                        now={now}
                      />
                    </div>
                  );
                })}
              </div>
            </div>
            <p className="small quiet logins-page-small">
              <kbd>U</kbd> copy user name · <kbd>Y</kbd> copy secret · <kbd>O</kbd> open site ·{" "}
              <kbd>R</kbd> rotate · <kbd>E</kbd> edit · <kbd>↵</kbd> open
            </p>
          </section>
        </div>
      )}
    </main>
  );
}

type LineProps = { login: Schema["LoginRow"]; kinds: FindingKind[]; now: number };

function LoginLine({ login, kinds, now }: LineProps) {
  const marks = [
    login.importance === "normal" ? "" : login.importance,
    login.rotation_id ? "rotating" : "",
    login.expires_on && Date.parse(login.expires_on) < now ? `due ${day(login.expires_on)}` : "",
  ].filter(Boolean);
  return (
    <div className="cols" style={COLUMNS}>
      <span className="may-shrink">
        <div className="name">
          <Link to={`/logins/${login.login_id}`} className="plain-link">
            {login.title}
          </Link>
        </div>
        <div className="sub">
          {[login.user_name, login.owner && `in charge: ${login.owner}`]
            .filter(Boolean)
            .join(" · ")}
        </div>
      </span>
      <span className="sub">{login.domain || login.address}</span>
      <span className="small">{marks.join(", ")}</span>
      <span className="row gap-4">
        {kinds.map((kind) => (
          <span key={kind} title={FINDING_LABELS[kind]}>
            <FindingShape kind={kind} />
            <span className="visually-hidden">{FINDING_LABELS[kind]}</span>
          </span>
        ))}
      </span>
      {login.has_secret ? (
        <SmallRuler log10={login.guess_number_log10} />
      ) : (
        <span className="quiet small">no secret</span>
      )}
      <span className="right small">{age(login.secret_since_at, now)}</span>
    </div>
  );
}

function FolderFacet(props: { label: string; n: number; on: boolean; onPick: () => void }) {
  return (
    <button type="button" className="facet" aria-pressed={props.on} onClick={props.onPick}>
      {props.label}
      <span className="n">{props.n.toLocaleString("en")}</span>
    </button>
  );
}
