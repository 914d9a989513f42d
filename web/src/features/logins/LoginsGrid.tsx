import { memo, useImperativeHandle, useRef, type Ref } from "react";
import { Link, useNavigate } from "react-router";
import type { Schema } from "../../api/client";
import { queries, type LoginsWish } from "../../api/queries";
import { FINDING_LABELS } from "../../domain/findings";
import { age, day } from "../../domain/moments";
import { SmallRuler } from "../../shared/GuessRuler";
import { FindingShape } from "../../shared/icons";
import { ProblemNote } from "../../shared/ProblemNote";
import { useRemembered } from "../../shared/remembered";
import { useKeys } from "../../shared/useKeys";
import { useParts } from "../../shared/useParts";
import { useRowPointer } from "../../shared/useRowPointer";
import { useVirtualRows } from "../../shared/useVirtualRows";
import { useLoginActs } from "./useLoginActs";

type Line = Schema["LoginListLine"];

const PAGE = 10;

/** Under which name it is remembered which row is current. */
export const CURRENT_ROW = "logins row";

/** What the field above does by its keys. */
export type GridKeys = { move: (by: number) => void; open: () => void };

type Props = {
  data: Schema["LoginRowsOut"];
  wish: LoginsWish;
  now: number;
  ref: Ref<GridKeys>;
};

/** The logins found, one of them current: a step from one to the next draws these alone. */
export const LoginsGrid = memo(function LoginsGrid({ data, wish, now, ref }: Props) {
  const navigate = useNavigate();
  const [at, setAt] = useRemembered(CURRENT_ROW, 0);
  const acts = useLoginActs();
  const total = data.lines_total;
  const scroller = useRef<HTMLDivElement>(null);
  const last = Math.max(0, total - 1);
  const { items, container, measure } = useVirtualRows(
    scroller,
    total,
    Math.min(at, last),
    () => 51,
  );
  const lineAt = useParts<Line, Schema["LoginRowsOut"]>(
    [Math.min(at, last), ...items.map((item) => item.index)],
    (part) => queries.loginRows(wish, part),
    data.rows,
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
    u: () => login && void acts.copyUserName(login),
    y: () => login && void acts.copySecret(login),
    o: () => login && acts.openSite(login),
    e: () => login && void navigate(`/logins/${login.login_id}/edit`),
    r: () => login && acts.rotate(login),
    s: () => login && void navigate(`/logins/${login.login_id}/sign-in`),
  });
  useImperativeHandle(ref, () => ({ move, open: () => void open(login) }));

  return (
    <>
      <ProblemNote problem={acts.problem} />
      <div
        ref={scroller}
        role="grid"
        tabIndex={0}
        aria-label="Logins found"
        aria-rowcount={total}
        aria-activedescendant={login ? `login-${login.login_id}` : undefined}
        className="scrolls"
      >
        <div role="presentation" ref={container} className="holds-rows">
          {items.map(({ index }) => (
            <GridRow
              key={index}
              index={index}
              line={lineAt(index)}
              isHere={index === here}
              now={now}
              measure={measure}
            />
          ))}
        </div>
      </div>
    </>
  );
});

type RowProps = {
  index: number;
  line: Line | undefined;
  isHere: boolean;
  now: number;
  measure: (element: HTMLDivElement | null) => void;
};

const GridRow = memo(function GridRow({ index, line, isHere, now, measure }: RowProps) {
  return (
    <div
      id={line?.login ? `login-${line.login.login_id}` : undefined}
      ref={measure}
      data-index={index}
      role="row"
      aria-rowindex={index + 1}
      aria-selected={isHere}
      className={["item", isHere && "at", line?.in_group && "in-group"].filter(Boolean).join(" ")}
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
});

type LineProps = { line: Line; login: Schema["LoginRow"]; now: number };

const LoginLine = memo(function LoginLine({ line, login, now }: LineProps) {
  const marks = [
    login.importance === "normal" ? "" : login.importance,
    login.rotation_id ? "rotating" : "",
    login.due_on && (login.due === "today" || login.due === "overdue")
      ? `due ${day(login.due_on)}`
      : "",
  ].filter(Boolean);
  return (
    <div role="gridcell" className="cols login-cols">
      <span className="may-shrink">
        <div className="name">
          <Link to={`/logins/${login.login_id}`} className="plain-link" tabIndex={-1}>
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
