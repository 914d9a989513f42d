import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { Button, Input, type InputRef } from "antd";
import { memo, useDeferredValue, useRef } from "react";
import { Link, useNavigate, useSearchParams } from "react-router";
import type { Schema } from "../../api/client";
import { queries } from "../../api/queries";
import { FINDING_LABELS } from "../../domain/findings";
import { age, count, day } from "../../domain/moments";
import { SmallRuler } from "../../shared/GuessRuler";
import { FindingShape } from "../../shared/icons";
import { ProblemNote } from "../../shared/ProblemNote";
import { useRemembered } from "../../shared/remembered";
import { useKeys } from "../../shared/useKeys";
import { useNow } from "../../shared/useNow";
import { useParts } from "../../shared/useParts";
import { useRowPointer } from "../../shared/useRowPointer";
import { useVirtualRows } from "../../shared/useVirtualRows";
import { useLoginActs } from "./useLoginActs";

type Line = Schema["LoginListLine"];

const PAGE = 10;

export default function LoginsPage() {
  const navigate = useNavigate();
  const [params, setParams] = useSearchParams();
  const gravest = params.get("sort") === "findings";
  const [folder, setFolder] = useRemembered<string | null>("logins folder", null);
  const [typed, setTyped] = useRemembered("logins search", "");
  const [at, setAt] = useRemembered("logins row", 0);
  const search = useRef<InputRef>(null);
  const sought = useDeferredValue(typed);
  const acts = useLoginActs();
  const now = useNow();
  const wish = { search: sought, folder, order: gravest ? "findings" : "site" } as const;
  const list = useQuery({ ...queries.loginRows(wish, 0), placeholderData: keepPreviousData });
  const { data, error } = list;

  const total = data?.lines_total ?? 0;
  const scroller = useRef<HTMLDivElement>(null);
  const last = Math.max(0, total - 1);
  const rows = useVirtualRows(scroller, total, Math.min(at, last), () => 51);
  const lineAt = useParts<Line, Schema["LoginRowsOut"]>(
    [Math.min(at, last), ...rows.items.map((item) => item.index)],
    (part) => queries.loginRows(wish, part),
    data?.rows,
  );
  // A head is no login: what is current is the login below it.
  const isHead = (index: number) => {
    const line = lineAt(index);
    return line !== undefined && line.login === null;
  };
  const here = isHead(Math.min(at, last)) ? Math.min(at, last) + 1 : Math.min(at, last);
  const login = lineAt(here)?.login ?? undefined;

  const move = (by: number) => {
    const to = Math.max(0, Math.min(last, here + by));
    setAt(isHead(to) && by < 0 && to > 0 ? to - 1 : to);
  };
  const open = (l: Schema["LoginRow"] | undefined) => l && void navigate(`/logins/${l.login_id}`);
  useRowPointer(scroller, {
    choose: (index) => lineAt(index)?.login && setAt(index),
    open: (index) => open(lineAt(index)?.login ?? undefined),
  });
  useKeys({
    ArrowDown: () => move(1),
    ArrowUp: () => move(-1),
    PageDown: () => move(PAGE),
    PageUp: () => move(-PAGE),
    Home: () => setAt(0),
    End: () => setAt(last),
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
  const pick = (name: string | null) => {
    setFolder(name);
    setAt(0);
  };

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
            value={typed}
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
            {data && `${data.found.toLocaleString("en")} of ${count(data.logins_count, "login")}`}
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
      {data && data.damaged_count > 0 && (
        <p className="problem">
          {count(data.damaged_count, "login")} cannot be read and are not in this list.
        </p>
      )}
      {data?.logins_count === 0 ? (
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
              n={data?.logins_count ?? 0}
              on={folder === null}
              onPick={() => pick(null)}
            />
            {Object.entries(data?.folders ?? {}).map(([name, n]) => (
              <FolderFacet
                key={name}
                label={name || "in no folder"}
                n={n}
                on={folder === name}
                onPick={() => pick(name)}
              />
            ))}
          </div>
          <section aria-label="Logins" className="main-column">
            <div className="cols login-cols head">
              <span>Login</span>
              <span>Site</span>
              <span>Marked</span>
              <button
                type="button"
                className="link to-left"
                aria-pressed={gravest}
                onClick={() => {
                  setParams(gravest ? {} : { sort: "findings" });
                  setAt(0);
                }}
              >
                Findings{gravest ? " ↓" : ""}
              </button>
              <span>Guesses, at the last check</span>
              <span className="right">Age</span>
            </div>
            <div
              ref={scroller}
              role="grid"
              tabIndex={0}
              aria-label="Logins found"
              aria-rowcount={total}
              aria-activedescendant={login ? `login-${login.login_id}` : undefined}
              className="scrolls"
            >
              <div role="presentation" style={{ height: rows.height, position: "relative" }}>
                {rows.items.map(({ index, start }) => {
                  const line = lineAt(index);
                  const place = { position: "absolute", top: start, left: 0, right: 0 } as const;
                  const isHere = index === here;
                  return (
                    <div
                      key={line?.login?.login_id ?? `line ${index}`}
                      id={line?.login ? `login-${line.login.login_id}` : undefined}
                      ref={rows.measure}
                      data-index={index}
                      role="row"
                      aria-rowindex={index + 1}
                      aria-selected={isHere}
                      className={isHere ? "item at" : "item"}
                      style={line?.in_group ? { ...place, paddingLeft: 30 } : place}
                    >
                      {line?.login ? (
                        <LoginLine line={line} login={line.login} now={now} />
                      ) : (
                        <span role="gridcell" className="small quiet">
                          {line ? `${line.site} · ${line.site_count} logins` : "…"}
                        </span>
                      )}
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

type LineProps = { line: Line; login: Schema["LoginRow"]; now: number };

const LoginLine = memo(function LoginLine({ line, login, now }: LineProps) {
  const marks = [
    login.importance === "normal" ? "" : login.importance,
    login.rotation_id ? "rotating" : "",
    login.expires_on && Date.parse(login.expires_on) < now ? `due ${day(login.expires_on)}` : "",
  ].filter(Boolean);
  return (
    <div role="gridcell" className="cols login-cols">
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
      <span className="sub login-site">{login.domain || login.address}</span>
      <span className="small login-marks">{marks.join(", ")}</span>
      <span className="row gap-4">
        {line.kinds.map((kind) => (
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
      <span className="right small login-age">{age(login.secret_since_at, now)}</span>
    </div>
  );
});

function FolderFacet(props: { label: string; n: number; on: boolean; onPick: () => void }) {
  return (
    <button type="button" className="facet" aria-pressed={props.on} onClick={props.onPick}>
      {props.label}
      <span className="n">{props.n.toLocaleString("en")}</span>
    </button>
  );
}
