import { useMutation, useQuery } from "@tanstack/react-query";
import { Button } from "antd";
import { useMemo, useRef, useState } from "react";
import { Link, useNavigate } from "react-router";
import { answer, client, type Schema } from "../../api/client";
import { queries } from "../../api/queries";
import {
  FINDING_KINDS,
  FINDING_LABELS,
  NOT_BY_A_NEW_SECRET,
  type FindingKind,
} from "../../domain/findings";
import { age, count, day, dayAndTime } from "../../domain/moments";
import { SmallRuler } from "../../shared/GuessRuler";
import { FindingShape } from "../../shared/icons";
import { ActProgress } from "../../shared/ActProgress";
import { ProblemNote } from "../../shared/ProblemNote";
import { useKeys } from "../../shared/useKeys";
import { OpenFindingsPlot } from "./OpenFindingsPlot";
import { WaiveDialog } from "./WaiveDialog";
import { useVirtualRows } from "../../shared/useVirtualRows";
import { opening } from "../../shared/typedAhead";
import { useNow } from "../../shared/useNow";
import { useRowPointer } from "../../shared/useRowPointer";

const COLUMNS = {
  gridTemplateColumns: "22px minmax(160px, 220px) minmax(0, 1fr) 62px 190px 68px",
};

export function WorklistPage() {
  const navigate = useNavigate();
  const { data, error, isPending } = useQuery(queries.worklist());
  const [facet, setFacet] = useState<FindingKind | null>(null);
  const [at, setAt] = useState(0);
  const [waiving, setWaiving] = useState<Schema["FindingRow"] | null>(null);
  const now = useNow();

  const check = useMutation({
    mutationFn: () => answer(client.POST("/checks")),
  });
  const used = data?.notices_used ?? false;
  // New notices come in without a check; what fails leaves those at hand, and is said.
  const notices = useQuery({ ...queries.notices(), enabled: used });
  const mailUsed = useQuery(queries.safeguards()).data?.mail_used ?? false;
  const mails = useQuery({
    ...queries.mails(),
    enabled: mailUsed,
    staleTime: 60_000,
  });
  const rotate = useMutation({
    mutationFn: (login_id: string) =>
      opening(answer(client.POST("/rotations", { body: { login_id } }))),
    onSuccess: (rotation) => {
      void navigate(`/rotate/${rotation.rotation_id}`);
    },
  });

  const campaign = useMutation({
    mutationFn: (login_ids: string[]) =>
      opening(answer(client.POST("/campaigns", { body: { login_ids } }))),
    onSuccess: () => {
      void navigate("/rotate");
    },
  });

  const findings = useMemo(
    () => (data?.findings ?? []).filter((f) => facet === null || f.kind === facet),
    [data, facet],
  );
  const here = Math.min(at, Math.max(0, findings.length - 1));
  const row = findings[here];
  const scroller = useRef<HTMLDivElement>(null);
  const rows = useVirtualRows(scroller, findings.length, here, (i) => (i === here ? 94 : 51));
  const go = (f: Schema["FindingRow"] | undefined) => {
    if (f?.loose_end_id) void navigate("/generate");
    else if (f?.rotation_id) void navigate(`/rotate/${f.rotation_id}`);
    else if (f?.login_id) rotate.mutate(f.login_id);
  };
  const open = (f: Schema["FindingRow"] | undefined) =>
    f && void navigate(f.login_id ? `/logins/${f.login_id}` : "/generate");
  useRowPointer(scroller, { choose: setAt, open: (index) => open(findings[index]) });
  useKeys({
    ArrowDown: () => setAt(Math.min(findings.length - 1, here + 1)),
    ArrowUp: () => setAt(Math.max(0, here - 1)),
    Enter: () => open(row),
    r: () => go(row),
    w: () => row?.login_id && setWaiving(row),
    c: () => !check.isPending && check.mutate(),
  });

  if (error) return <Main problem={error} />;
  if (isPending) return <main className="page" aria-busy="true" />;
  const settled = findings.filter((f) => !NOT_BY_A_NEW_SECRET.includes(f.kind));
  const chosen = [...new Set(settled.flatMap((f) => (f.login_id ? [f.login_id] : [])))];
  const counts = new Map<FindingKind, number>();
  for (const f of data.findings) counts.set(f.kind, (counts.get(f.kind) ?? 0) + 1);

  return (
    <main className="page fills-height">
      <header className="row spread worklist-page-row">
        <div className="may-shrink">
          <h1>{heading(data)}</h1>
          <p className="small quiet">{basis(data, now)}</p>
          <NotChecked worklist={data} />
        </div>
        <div className="row worklist-page-row-2">
          <OpenFindingsPlot worklist={data} />
          <Link to="/reach">Reuse map</Link>
          <Link to="/report">Report</Link>
          {check.isPending ? (
            <ActProgress name="Check under way" />
          ) : (
            <Button onClick={() => check.mutate()}>
              {data.checked_at ? "Check again" : "Check now"} <kbd>C</kbd>
            </Button>
          )}
        </div>
      </header>
      <ProblemNote
        problem={check.error ?? rotate.error ?? campaign.error ?? notices.error ?? mails.error}
      />
      {data.checked_at === null ? (
        <Unchecked />
      ) : data.findings.length === 0 ? (
        <div className="empty">
          <h2>Nothing to do</h2>
          <p>
            No finding in {count(data.checked_count, "login")}. That is not the same as safe: a
            corpus holds only what has been published.
          </p>
          {data.renewable_count > 0 && <p className="quiet">{renewed(data)}</p>}
          {data.waived_count > 0 && (
            <Link to="/waivers">{count(data.waived_count, "finding")} accepted</Link>
          )}
        </div>
      ) : (
        <div className="beside-facets">
          <div className="facets" role="group" aria-label="Kinds of finding">
            <Facet
              label="Everything"
              n={data.findings.length}
              on={facet === null}
              onPick={() => setFacet(null)}
            />
            {FINDING_KINDS.filter((k) => counts.has(k)).map((k) => (
              <Facet
                key={k}
                kind={k}
                label={FINDING_LABELS[k]}
                n={counts.get(k) ?? 0}
                on={facet === k}
                onPick={() => {
                  setFacet(k);
                  setAt(0);
                }}
              />
            ))}
            <hr />
            {chosen.length > 1 && (
              <p className="small worklist-page-small">
                <button
                  type="button"
                  className="link to-left"
                  onClick={() => campaign.mutate(chosen)}
                >
                  Rotate these {count(chosen.length, "login")} as a campaign
                </button>
              </p>
            )}
            <p className="small quiet worklist-page-small">{renewed(data)}</p>
            <p className="small worklist-page-small">
              <Link to="/waivers">{count(data.waived_count, "finding")} accepted</Link>
            </p>
          </div>
          <section aria-label="Findings, gravest first" className="main-column">
            <div className="cols head" style={COLUMNS} aria-hidden="true">
              <span />
              <span>Login</span>
              <span>Why</span>
              <span className="right">Reach</span>
              <span>Guesses</span>
              <span className="right">Age</span>
            </div>
            <div ref={scroller} role="list" className="scrolls">
              <div style={{ height: rows.height, position: "relative" }}>
                {rows.items.map(({ index, start }) => {
                  const f = findings[index];
                  if (!f) return null;
                  return (
                    <div
                      key={`${f.kind} ${f.login_id ?? f.loose_end_id}`}
                      role="listitem"
                      ref={rows.measure}
                      data-index={index}
                      aria-current={index === here}
                      className={index === here ? "item at" : "item"}
                      style={{ position: "absolute", top: start, left: 0, right: 0 }}
                    >
                      <FindingLine finding={f} now={now} />
                      {index === here && f.loose_end_id && (
                        <div className="row worklist-page-row-3">
                          <Button type="primary" onClick={() => go(f)}>
                            Place it in a login <kbd>R</kbd>
                          </Button>
                          <span className="small quiet">{f.why}</span>
                        </div>
                      )}
                      {index === here && f.login_id && (
                        <div className="row worklist-page-row-3">
                          <Button type="primary" onClick={() => go(f)} loading={rotate.isPending}>
                            {f.rotation_id ? "Go on rotating" : "Rotate"} <kbd>R</kbd>
                          </Button>
                          <Button onClick={() => open(f)}>
                            Open login <kbd>↵</kbd>
                          </Button>
                          <Button onClick={() => setWaiving(f)}>
                            Accept… <kbd>W</kbd>
                          </Button>
                          <span className="small quiet">{f.why}</span>
                        </div>
                      )}
                    </div>
                  );
                })}
              </div>
            </div>
          </section>
        </div>
      )}
      {waiving && <WaiveDialog finding={waiving} onClose={() => setWaiving(null)} />}
    </main>
  );
}

function Main({ problem }: { problem: unknown }) {
  return (
    <main className="page">
      <ProblemNote problem={problem} />
    </main>
  );
}

/** What the check could not say, and why: never taken for "not in the list". */
function NotChecked({ worklist }: { worklist: Schema["Worklist"] }) {
  const failed = worklist.asked.filter((one) => one.unchecked_count !== 0);
  if (!failed.length) return null;
  return (
    <p className="small" role="note">
      {failed.map((one) => (
        <span key={one.name}>
          <b>Not checked</b> against {one.name}
          {one.unchecked_count === null ? "" : `: ${count(one.unchecked_count, "secret")}`} (
          {one.reason}).{" "}
        </span>
      ))}
    </p>
  );
}

function Unchecked() {
  return (
    <div className="empty">
      <h2>This vault has not been checked yet</h2>
      <p>
        A check measures every secret, compares them with each other and with the breach corpus on
        this machine, and lists what to do first. Nothing leaves the machine, unless you switch on a
        list held elsewhere.
      </p>
      <p className="quiet">No logins yet? Add one with N under Logins, or bring a CSV file in.</p>
    </div>
  );
}

function FindingLine({ finding, now }: { finding: Schema["FindingRow"]; now: number }) {
  return (
    <div className="cols" style={COLUMNS}>
      <span title={FINDING_LABELS[finding.kind]}>
        <FindingShape kind={finding.kind} />
        <span className="visually-hidden">{FINDING_LABELS[finding.kind]}</span>
      </span>
      <span className="may-shrink">
        <div className="name">{finding.title}</div>
        <div className="sub">
          {[finding.user_name, finding.importance === "normal" ? "" : finding.importance]
            .filter(Boolean)
            .join(" · ")}
        </div>
      </span>
      <span>{finding.evidence}</span>
      <span
        className="right small"
        title={
          finding.reach ? `${count(finding.reach, "other login")} would fall with it` : undefined
        }
      >
        {finding.reach ? `+ ${finding.reach.toLocaleString("en")}` : ""}
      </span>
      <SmallRuler log10={finding.guess_number_log10} />
      <span className="right small">{age(finding.since_at, now)}</span>
    </div>
  );
}

function Facet(props: {
  label: string;
  n: number;
  on: boolean;
  onPick: () => void;
  kind?: FindingKind;
}) {
  return (
    <button type="button" className="facet" aria-pressed={props.on} onClick={props.onPick}>
      {props.kind && <FindingShape kind={props.kind} />}
      {props.label}
      <span className="n">{props.n.toLocaleString("en")}</span>
    </button>
  );
}

function heading(data: Schema["Worklist"]): string {
  const n = data.findings.length;
  if (!data.checked_at) return "Worklist";
  if (!n) return "Nothing to do";
  const kinds: FindingKind[] = ["breached", "notice"];
  const grave = new Set(data.findings.filter((f) => kinds.includes(f.kind)).map((f) => f.login_id));
  const first = grave.size ? `, ${grave.size} of them first` : "";
  return `${count(n, "thing")} to do${first}`;
}

function renewed(data: Schema["Worklist"]): string {
  const begun = data.earlier[0]?.checked_at ?? data.checked_at;
  const since = begun ? ` since ${day(begun)}` : "";
  return `${data.renewed_count.toLocaleString("en")} of ${data.renewable_count.toLocaleString("en")} renewed${since}`;
}

function basis(data: Schema["Worklist"], now: number): string {
  if (!data.checked_at) return "Not checked yet";
  const asked = data.asked.filter((one) => one.unique_count !== null);
  const total = asked.reduce((sum, one) => sum + (one.unique_count ?? 0), 0);
  const lists = asked.map((one) => `${one.name} of ${one.dated_on?.slice(0, 7)}`).join(", ");
  const corpora = asked.length
    ? `against ${total.toLocaleString("en")} breached secrets: ${lists}`
    : "without a breach corpus: breaches were not checked";
  const sent = data.asked.reduce((sum, one) => sum + one.sent_count, 0);
  const left = sent ? ` · ${count(sent, "hash prefix", "hash prefixes")} left this machine` : "";
  const unread = data.unread_count
    ? ` · ${count(data.unread_count, "login")} could not be read`
    : "";
  const unmeasured = data.unmeasured.length ? ` · not measured: ${data.unmeasured.join(", ")}` : "";
  const changed =
    data.new_count === null || data.gone_count === null || data.new_count + data.gone_count === 0
      ? ""
      : ` · since the check before ${data.new_count} new, ${data.gone_count} gone`;
  return `${count(data.checked_count, "login")} checked ${dayAndTime(data.checked_at, now)} · ${corpora}${left}${changed}${unread}${unmeasured}`;
}
