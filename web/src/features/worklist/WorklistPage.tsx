import { keepPreviousData, useMutation, useQuery } from "@tanstack/react-query";
import { Button } from "antd";
import { memo, useCallback, useState } from "react";
import { Link, useNavigate, useSearchParams } from "react-router";
import { answer, client, type Schema } from "../../api/client";
import { queries, type Facet } from "../../api/queries";
import { FINDING_KINDS, FINDING_LABELS, NEED_LABELS, NEEDS } from "../../domain/findings";
import { count, day, dayAndTime } from "../../domain/moments";
import { FacetButton, Facets } from "../../shared/Facets";
import { FindingShape } from "../../shared/icons";
import { ActProgress } from "../../shared/ActProgress";
import { ProblemNote } from "../../shared/ProblemNote";
import { opening } from "../../shared/typedAhead";
import { useKeys } from "../../shared/useKeys";
import { useNow } from "../../shared/useNow";
import { useRotate } from "../../shared/useRotate";
import { FirstHour } from "./FirstHour";
import { OpenFindingsPlot } from "./OpenFindingsPlot";
import { SettledToday } from "./SettledToday";
import { WaiveDialog, type ToWaive } from "./WaiveDialog";
import { WorkGrid } from "./WorkGrid";

export function WorklistPage() {
  const navigate = useNavigate();
  const [params, setParams] = useSearchParams();
  const facet = facetOf(params.get("facet"));
  const first = useQuery({ ...queries.workRows(facet, 0), placeholderData: keepPreviousData });
  const [waiving, setWaiving] = useState<ToWaive | null>(null);
  const now = useNow();
  const data = first.data;

  const check = useMutation({
    mutationFn: () => answer(client.POST("/checks", { body: { whole: false } })),
  });
  const used = data?.basis.notices_used ?? false;
  // New notices come in without a check; what fails leaves those at hand, and is said.
  const notices = useQuery({ ...queries.notices(), enabled: used });
  const mailUsed = useQuery(queries.safeguards()).data?.mail_used ?? false;
  const mails = useQuery({ ...queries.mails(), enabled: mailUsed, staleTime: 60_000 });
  const rotate = useRotate();
  const campaign = useMutation({
    mutationFn: async (wish: Schema["FacetIn"]) => {
      const { login_ids } = await answer(client.POST("/checks/worklist/logins", { body: wish }));
      return opening(answer(client.POST("/campaigns", { body: { login_ids } })));
    },
    onSuccess: () => void navigate("/rotate"),
  });

  useKeys({ c: () => !check.isPending && check.mutate() });

  const { mutate: runCheck } = check;
  const { mutate: runCampaign } = campaign;
  const { mutate: rotateOne } = rotate;
  const checkNow = useCallback(() => runCheck(), [runCheck]);
  const rotateFacet = useCallback(() => runCampaign({ facet }), [runCampaign, facet]);
  const pick = useCallback(
    (wanted: Facet | null) => setParams(wanted ? { facet: wanted } : {}),
    [setParams],
  );

  if (first.error) return <Main problem={first.error} />;
  if (!data) return <main className="page" aria-busy="true" />;
  const { basis } = data;

  return (
    <main className="page fills-height">
      <Head data={data} now={now} isChecking={check.isPending} onCheck={checkNow} />
      <ProblemNote
        problem={check.error ?? rotate.error ?? campaign.error ?? notices.error ?? mails.error}
      />
      {basis.checked_at !== null && <FirstHour inALine />}
      {basis.checked_at === null ? (
        <>
          <Unchecked />
          <FirstHour />
        </>
      ) : data.logins === 0 ? (
        <div className="empty">
          <h2>Nothing to do</h2>
          <p>{nothingLeft(basis)}</p>
          {basis.renewable_count > 0 && <p className="quiet">{renewed(basis)}</p>}
          {basis.waived_count > 0 && (
            <Link to="/waivers">{count(basis.waived_count, "finding")} accepted</Link>
          )}
          <SettledToday rows={data} />
        </div>
      ) : (
        <div className="beside-facets">
          <Choice data={data} facet={facet} onPick={pick} onCampaign={rotateFacet} />
          <section aria-label="Logins to see to, first ones first" className="main-column">
            <div className="cols work-cols head" aria-hidden="true">
              <span />
              <span>Login</span>
              <span>Why</span>
              <span className="right">Falls</span>
              <span>Guesses</span>
              <span className="right">Age</span>
            </div>
            {data.total === 0 ? (
              <p className="says-none">
                None of these is left.{" "}
                <button type="button" className="link" onClick={() => pick(null)}>
                  Show everything
                </button>
              </p>
            ) : (
              <WorkGrid
                data={data}
                facet={facet}
                now={now}
                busy={rotate.isPending || campaign.isPending}
                onRotate={rotateOne}
                onCampaign={runCampaign}
                onWaive={setWaiving}
              />
            )}
          </section>
        </div>
      )}
      {waiving && <WaiveDialog finding={waiving} onClose={() => setWaiving(null)} />}
    </main>
  );
}

type HeadProps = {
  data: Schema["WorkRows"];
  now: number;
  isChecking: boolean;
  onCheck: () => void;
};

/** What there is to see to, in acts, and what it rests on. */
const Head = memo(function Head({ data, now, isChecking, onCheck }: HeadProps) {
  return (
    <header className="row spread worklist-page-row">
      <div className="may-shrink">
        <h1>{heading(data)}</h1>
        <p className="small quiet">{inActs(data)}</p>
        <p className="small quiet">{basedOn(data.basis, now)}</p>
        <NotChecked worklist={data.basis} />
      </div>
      <div className="row worklist-page-row-2">
        <OpenFindingsPlot worklist={data.basis} counts={data.by_kind} />
        <Link to="/reach">Reuse map</Link>
        <Link to="/report">Report</Link>
        {isChecking ? (
          <ActProgress name="Check under way" />
        ) : (
          <Button onClick={onCheck}>
            {data.basis.checked_at ? "Check again" : "Check now"} <kbd>C</kbd>
          </Button>
        )}
      </div>
    </header>
  );
});

type ChoiceProps = {
  data: Schema["WorkRows"];
  facet: Facet | null;
  onPick: (facet: Facet | null) => void;
  onCampaign: () => void;
};

/** What is to be done, and because of what; both count logins. The one asked for stays when it is settled to the last. */
const Choice = memo(function Choice({ data, facet, onPick, onCampaign }: ChoiceProps) {
  return (
    <div className="facets">
      <Facets label="Which logins">
        <p className="facets-head">To do</p>
        <FacetButton
          label="Everything"
          n={data.logins}
          on={facet === null}
          onPick={() => onPick(null)}
        />
        {NEEDS.filter((need) => data.by_need[need] || need === facet).map((need) => (
          <FacetButton
            key={need}
            folds
            label={NEED_LABELS[need]}
            n={data.by_need[need] ?? 0}
            on={facet === need}
            onPick={() => onPick(need)}
          />
        ))}
        <p className="facets-head">Because of</p>
        {FINDING_KINDS.filter((kind) => data.by_kind[kind] || kind === facet).map((kind) => (
          <FacetButton
            key={kind}
            shape={<FindingShape kind={kind} />}
            label={FINDING_LABELS[kind]}
            n={data.by_kind[kind] ?? 0}
            on={facet === kind}
            onPick={() => onPick(kind)}
          />
        ))}
      </Facets>
      <div className="facets-more">
        {data.rotations_here > 1 && (
          <p className="small worklist-page-small">
            <button type="button" className="link to-left" onClick={() => onCampaign()}>
              Rotate these {count(data.rotations_here, "login")} as a campaign
            </button>
          </p>
        )}
        <p className="small quiet worklist-page-small">{renewed(data.basis)}</p>
        <p className="small worklist-page-small">
          <Link to="/waivers">{count(data.basis.waived_count, "finding")} accepted</Link>
        </p>
        <SettledToday rows={data} />
      </div>
    </div>
  );
});

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
    </div>
  );
}

function facetOf(text: string | null): Facet | null {
  const known: Facet[] = [...NEEDS, ...FINDING_KINDS];
  return known.find((one) => one === text) ?? null;
}

function heading(data: Schema["WorkRows"]): string {
  if (!data.basis.checked_at) return "Worklist";
  if (!data.logins) return "Nothing to do";
  const first = data.first ? `, ${data.first.toLocaleString("en")} of them first` : "";
  return `${count(data.logins, "login")} to see to${first}`;
}

/** A line breaks between two acts, not between a number and what it counts. */
const NO_BREAK = "\u00a0";

/** How much is settled by what: "22 rotations settle 44 findings · 2 a second factor …". */
function inActs(data: Schema["WorkRows"]): string {
  if (!data.basis.checked_at || !data.logins) return "";
  const n = (need: Schema["Need"]) => data.by_need[need] ?? 0;
  const settle = data.rotations === 1 ? "settles" : "settle";
  return [
    data.rotations &&
      `${count(data.rotations, "rotation")} ${settle} ${count(data.settled_by_rotations, "finding")}`,
    n("field") && `${count(n("field"), "further secret")} to change`,
    n("second_factor") && `${count(n("second_factor"), "second factor")} to set up`,
    n("address") && `${count(n("address"), "address", "addresses")} to correct`,
    n("finish") && `${n("finish").toLocaleString("en")} to be finished`,
  ]
    .filter((part) => part !== 0)
    .map((part) => part.replaceAll(" ", NO_BREAK))
    .join(" · ");
}

function otherThanChecked(data: Schema["Worklist"]): string {
  return [
    data.changed_count && count(data.changed_count, "login"),
    data.policies_changed && count(data.policies_changed, "site policy", "site policies"),
  ]
    .filter(Boolean)
    .join(" and ");
}

/** Why the list is empty: nothing was found, or nothing of it is left; and what that does not say. */
function nothingLeft(data: Schema["Worklist"]): string {
  const logins = count(data.checked_count, "login");
  const left = data.found_count
    ? `Of ${count(data.found_count, "finding")} in ${logins} none is left to do.`
    : `No finding in ${logins}.`;
  const others = otherThanChecked(data);
  const since = others ? ` ${others} changed since the check: only another one tells of them.` : "";
  const safe = data.asked.some((one) => one.unique_count !== null)
    ? "a corpus holds only what has been published"
    : "whether a secret is in a breach was not asked";
  return `${left}${since} That is not the same as safe: ${safe}.`;
}

function renewed(data: Schema["Worklist"]): string {
  const begun = data.earlier[0]?.checked_at ?? data.checked_at;
  const since = begun ? ` since ${day(begun)}` : "";
  return `${data.renewed_count.toLocaleString("en")} of ${data.renewable_count.toLocaleString("en")} renewed${since}`;
}

function basedOn(data: Schema["Worklist"], now: number): string {
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
  const others = otherThanChecked(data);
  const since = others ? ` · ${others} changed since` : "";
  return `${count(data.checked_count, "login")} checked ${dayAndTime(data.checked_at, now)}${since} · ${corpora}${left}${changed}${unread}${unmeasured}`;
}
