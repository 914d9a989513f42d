import { useQuery } from "@tanstack/react-query";
import { memo, useState } from "react";
import { Link, useNavigate } from "react-router";
import type { Schema } from "../../api/client";
import { queries } from "../../api/queries";
import { FINDING_LABELS, NEED_ACTS } from "../../domain/findings";
import { age, count } from "../../domain/moments";
import { SmallRuler } from "../../shared/GuessRuler";
import { FindingShape } from "../../shared/icons";
import { isNearEnd } from "../../shared/nearEnd";

type Row = Schema["WorkRow"];
type Finding = Schema["RowFinding"];

const SHAPES_MOST = 3;
/** As many as are in view, and a few more; the next come as they are scrolled to. */
const MEMBERS_FIRST = 12;
const MEMBERS_STEP = 48;
const MEMBERS_MOST = 200;

type LineProps = { row: Row; lead: Finding | undefined; isOpen: boolean; now: number };

/** A row as it stands in the list: the gravest evidence, the others in half a line. */
export const WorkRowLine = memo(function WorkRowLine({ row, lead, isOpen, now }: LineProps) {
  const kinds = [...new Set(row.findings.map((f) => f.kind))];
  const sub = [row.user_name, row.importance === "normal" ? "" : row.importance];
  return (
    <div role="gridcell" className="cols work-cols">
      <span className="work-shapes">
        {kinds.slice(0, SHAPES_MOST).map((kind) => (
          <span key={kind} title={FINDING_LABELS[kind]}>
            <FindingShape kind={kind} />
            <span className="visually-hidden">{FINDING_LABELS[kind]}, </span>
          </span>
        ))}
      </span>
      <span className="may-shrink work-login">
        <span className="name">{row.kind === "group" ? row.says : row.title}</span>
        <span className="sub">
          {row.kind === "group" ? namedOf(row) : sub.filter(Boolean).join(" · ")}
        </span>
      </span>
      <span className="work-why">
        <span className={isOpen ? undefined : "work-lead"}>
          {isOpen && row.findings.length > 1 ? settledBy(row) : lead?.evidence}
        </span>
        {!isOpen && lead && row.findings.length > 1 && (
          <span className="sub">{others(row, lead)}</span>
        )}
      </span>
      <span
        className="right small work-reach"
        title={row.reach ? `${count(row.reach, "other login")} would fall with it` : undefined}
      >
        {row.reach ? `+ ${row.reach.toLocaleString("en")}` : ""}
      </span>
      <span className="work-guesses">
        {row.kind === "loose_end" ? null : <SmallRuler log10={row.guess_number_log10} />}
      </span>
      <span className="right small work-age">{age(row.since_at, now)}</span>
    </div>
  );
});

type OpenedProps = {
  row: Row;
  busy: boolean;
  onAct: (need?: Schema["Need"]) => void;
  onOpen: () => void;
  onTogether: () => void;
  onAccept: (finding: Finding) => void;
};

/** The current row: each finding with its evidence, its acts with their keys, and why it is here. */
export function WorkRowOpened(props: OpenedProps) {
  const { row } = props;
  const navigate = useNavigate();
  const further = row.rotation_id ? besideRotation(row) : row.needs.slice(1);
  return (
    <div role="gridcell" className="work-opened">
      {(row.findings.length > 1 || row.kind === "group") && (
        <ul className="work-findings">
          {row.findings.map((finding) => (
            <li key={`${finding.kind} ${finding.evidence}`}>
              <FindingShape kind={finding.kind} />
              <span>
                <span className="visually-hidden">{FINDING_LABELS[finding.kind]}: </span>
                {finding.evidence}
              </span>
              {row.login_id && (
                <button
                  type="button"
                  className="link small"
                  aria-label={`Accept ${FINDING_LABELS[finding.kind].toLowerCase()} of ${row.kind === "group" ? row.says : row.title}`}
                  onClick={() => props.onAccept(finding)}
                >
                  accept…
                </button>
              )}
            </li>
          ))}
        </ul>
      )}
      {row.kind === "group" && <Members row={row} />}
      <div className="row work-acts">
        {row.kind === "group" ? (
          <button
            type="button"
            className="act primary"
            onClick={props.onTogether}
            disabled={props.busy}
          >
            Rotate these {row.count.toLocaleString("en")} as a campaign <kbd>R</kbd>
          </button>
        ) : (
          <button
            type="button"
            className="act primary"
            onClick={() => props.onAct()}
            disabled={props.busy}
          >
            {row.loose_end_id
              ? "Place it in a login"
              : row.rotation_id
                ? "Go on rotating"
                : NEED_ACTS[row.needs[0] ?? "finish"]}{" "}
            <kbd>R</kbd>
          </button>
        )}
        {row.kind === "login" && row.shares_count > 0 && (
          <button type="button" className="act" onClick={props.onTogether}>
            {row.shares_count === 1
              ? "Rotate with the one that shares it"
              : `Rotate with the ${row.shares_count.toLocaleString("en")} that share it`}{" "}
            <kbd>G</kbd>
          </button>
        )}
        {row.kind === "login" &&
          further.map((need) => (
            <button type="button" className="act" key={need} onClick={() => props.onAct(need)}>
              {NEED_ACTS[need]}
            </button>
          ))}
        {row.findings.some((f) => f.by_passphrase) && (
          <button type="button" className="act" onClick={() => void navigate("/passphrase")}>
            Change the vault&apos;s passphrase
          </button>
        )}
        {row.login_id && row.kind === "login" && (
          <button type="button" className="act" onClick={props.onOpen}>
            Open login <kbd>↵</kbd>
          </button>
        )}
        {row.login_id && row.findings[0] && (
          <button
            type="button"
            className="act"
            onClick={() => row.findings[0] && props.onAccept(row.findings[0])}
          >
            Accept… <kbd>W</kbd>
          </button>
        )}
        <span className="small quiet">{row.findings[0]?.why}</span>
      </div>
    </div>
  );
}

/** The logins of a group, the ones that matter most first; it scrolls within itself. */
function Members({ row }: { row: Row }) {
  const [asked, setAsked] = useState(MEMBERS_FIRST);
  const { data } = useQuery(queries.workMembers(row.row_id, asked));
  const more = () => setAsked(Math.min((data?.members.length ?? 0) + MEMBERS_STEP, MEMBERS_MOST));
  return (
    <div
      className="work-members"
      role="group"
      aria-label={row.says}
      onScroll={({ currentTarget: box }) => {
        if (isNearEnd(box)) more();
      }}
    >
      {data?.members.map((one) => (
        <div key={one.login_id} className="row gap-8 small">
          <Link to={`/logins/${one.login_id}`}>{one.title}</Link>
          <span className="quiet">
            {[one.user_name, one.importance === "normal" ? "" : one.importance]
              .filter(Boolean)
              .join(" · ")}
          </span>
          {one.kinds.map((kind) => (
            <span key={kind} title={FINDING_LABELS[kind]}>
              <FindingShape kind={kind} />
              <span className="visually-hidden">{FINDING_LABELS[kind]}</span>
            </span>
          ))}
        </div>
      ))}
      {data && data.members.length < data.total && (
        <button
          type="button"
          className="link small"
          disabled={asked >= MEMBERS_MOST}
          onClick={more}
        >
          {(data.total - data.members.length).toLocaleString("en")} more
          {asked >= MEMBERS_MOST && ": see them under Logins, by findings"}
        </button>
      )}
    </div>
  );
}

function namedOf(row: Row): string {
  const rest = row.count - row.members.length;
  const more = rest > 0 ? ` and ${rest.toLocaleString("en")} more` : "";
  const apart = row.elsewhere.length ? `; on their own: ${row.elsewhere.join(", ")}` : "";
  return `${row.members.join(", ")}${more}${apart}`;
}

/** What is to be done besides going on with the rotation, which ends in a new secret. */
function besideRotation(row: Row): Row["needs"] {
  const toFinish = row.findings.filter((f) => TO_FINISH.includes(f.kind));
  return row.needs.filter(
    (need) => need !== "new_secret" && (need !== "finish" || toFinish.length > 1),
  );
}

const TO_FINISH: Finding["kind"][] = ["unfinished", "unexplained_change"];
const NUMBERS = ["No", "One", "Two", "Three", "Four", "Five", "Six", "Seven", "Eight", "Nine"];

function settledBy(row: Row): string {
  const n = row.findings.length;
  const said = NUMBERS[n] ?? n.toLocaleString("en");
  if (row.kind === "group") return `${said} findings that each of them has`;
  const settled = row.findings.filter((f) => f.by_new_secret).length;
  const which = settled === n ? "" : ` ${settled.toLocaleString("en")} of them`;
  return settled > 1 ? `${said} findings,${which} settled by one new secret` : `${said} findings`;
}

function others(row: Row, lead: Finding): string {
  const further = row.findings.filter((f) => f !== lead);
  const rest = further.map((f) => FINDING_LABELS[f.kind].toLowerCase());
  const acts =
    row.needs.length > 1
      ? ` · to do: ${row.needs.map((need) => NEED_ACTS[need].toLowerCase()).join(", then ")}`
      : "";
  return `and ${rest.length} more: ${[...new Set(rest)].join(", ")}${acts}`;
}
