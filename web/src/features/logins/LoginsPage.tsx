import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { Button, Input, type InputRef } from "antd";
import { memo, useDeferredValue, useMemo, useRef } from "react";
import { Link, useNavigate, useSearchParams } from "react-router";
import type { Schema } from "../../api/client";
import { queries } from "../../api/queries";
import { count } from "../../domain/moments";
import { FacetButton, Facets } from "../../shared/Facets";
import { ProblemNote } from "../../shared/ProblemNote";
import { remember, useRemembered } from "../../shared/remembered";
import { useKeys } from "../../shared/useKeys";
import { useNow } from "../../shared/useNow";
import { CURRENT_ROW, LoginsGrid, type GridKeys } from "./LoginsGrid";

export default function LoginsPage() {
  const navigate = useNavigate();
  const [params, setParams] = useSearchParams();
  const gravest = params.get("sort") === "findings";
  const [folder] = useRemembered<string | null>(FOLDER, null);
  const [typed, setTyped] = useRemembered("logins search", "");
  const search = useRef<InputRef>(null);
  const sought = useDeferredValue(typed);
  const grid = useRef<GridKeys>(null);
  const now = useNow();
  const wish = useMemo(
    () => ({ search: sought, folder, order: gravest ? "findings" : "site" }) as const,
    [sought, folder, gravest],
  );
  const list = useQuery({ ...queries.loginRows(wish, 0), placeholderData: keepPreviousData });
  const { data, error } = list;

  useKeys({
    n: () => void navigate("/logins/new"),
    f: () => search.current?.focus(),
  });

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
              remember(CURRENT_ROW, 0);
            }}
            onKeyDown={(event) => {
              if (event.key === "ArrowDown") grid.current?.move(1);
              else if (event.key === "ArrowUp") grid.current?.move(-1);
              else if (event.key === "Enter") grid.current?.open();
              else if (event.key === "Escape") search.current?.blur();
              else return;
              event.preventDefault();
            }}
          />
          <span className="quiet small" role="status">
            {data && `${data.found.toLocaleString("en")} of ${count(data.logins_count, "login")}`}
          </span>
        </div>
        <Ways />
      </header>
      <ProblemNote problem={error} />
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
          <Folders data={data} folder={folder} onPick={pick} />
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
                  remember(CURRENT_ROW, 0);
                }}
              >
                Findings{gravest ? " ↓" : ""}
              </button>
              <span>Guesses, at the last check</span>
              <span className="right">Age</span>
            </div>
            {data?.found === 0 && (
              <p className="says-none">
                None found{folder !== null && " in this folder"}.{" "}
                {folder !== null && (
                  <button type="button" className="link" onClick={() => pick(null)}>
                    Look in all folders
                  </button>
                )}
              </p>
            )}
            {data && <LoginsGrid ref={grid} data={data} wish={wish} now={now} />}
            {data?.found !== 0 && (
              <p className="small quiet logins-page-small">
                <kbd>U</kbd> copy user name · <kbd>Y</kbd> copy secret · <kbd>O</kbd> open site ·{" "}
                <kbd>R</kbd> rotate · <kbd>E</kbd> edit · <kbd>↵</kbd> open
              </p>
            )}
          </section>
        </div>
      )}
    </main>
  );
}

/** What else there is to do with logins. */
const Ways = memo(function Ways() {
  const navigate = useNavigate();
  return (
    <div className="row">
      <Link to="/carry">Bring in</Link>
      <Link to="/logins/bin">Bin</Link>
      <Button type="primary" onClick={() => void navigate("/logins/new")}>
        New login <kbd>N</kbd>
      </Button>
    </div>
  );
});

type FoldersProps = {
  data: Schema["LoginRowsOut"] | undefined;
  folder: string | null;
  onPick: (name: string | null) => void;
};

/** The folder that is on stays when its last login has left it. */
const Folders = memo(function Folders({ data, folder, onPick }: FoldersProps) {
  const folders = { ...data?.folders };
  if (folder !== null) folders[folder] ??= 0;
  return (
    <div className="facets">
      <Facets label="Folders">
        <FacetButton
          label="All folders"
          n={data?.logins_count ?? 0}
          on={folder === null}
          onPick={() => onPick(null)}
        />
        {Object.entries(folders).map(([name, n]) => (
          <FacetButton
            key={name}
            label={name || "in no folder"}
            n={n}
            on={folder === name}
            onPick={() => onPick(name)}
          />
        ))}
      </Facets>
    </div>
  );
});

const FOLDER = "logins folder";

function pick(name: string | null): void {
  remember(FOLDER, name);
  remember(CURRENT_ROW, 0);
}
