import { Button } from "antd";
import { useState } from "react";
import { answer, client, type Schema } from "../../api/client";
import { day } from "../../domain/moments";
import type { Policy } from "../../domain/policy";
import { partedRules, withRules } from "../../domain/policyParts";
import { ProblemNote } from "../../shared/ProblemNote";
import { useAct } from "../../shared/useAct";
import { SOURCES } from "./sources";

type Parted = Schema["PartedPolicyOut"];
type Here = Schema["PolicyOut"];

/** Policies that a file has otherwise, rule by rule: of each the one here holds, or the file's. */
export function PartedPolicies(props: { parted: Parted[]; library: Here[] }) {
  const [done, setDone] = useState<ReadonlySet<string>>(new Set());
  return props.parted.map((there) => {
    const here = props.library.find((one) => one.policy_id === there.policy_id);
    if (!here || done.has(there.policy_id)) return null;
    return (
      <PartedPolicy
        key={there.policy_id}
        here={here}
        there={there}
        onDone={() => setDone(new Set([...done, there.policy_id]))}
      />
    );
  });
}

function PartedPolicy(props: { here: Here; there: Parted; onDone: () => void }) {
  const { here, there } = props;
  const [mine, theirs] = [here.policy as Policy, there.policy as Policy];
  const [taken, setTaken] = useState<ReadonlySet<string>>(new Set());
  const { problem, busy, run } = useAct();
  const rules = partedRules(mine, theirs);
  const otherFactor = here.offers_second_factor !== there.offers_second_factor;
  const otherSites = [...here.domains].sort().join() !== [...there.domains].sort().join();
  const lines = [
    ...rules,
    ...(otherSites
      ? [
          {
            key: SITES,
            label: "Sites",
            here: here.domains.join(", ") || "none",
            there: there.domains.join(", ") || "none",
          },
        ]
      : []),
    ...(otherFactor
      ? [
          {
            key: FACTOR,
            label: "Offers a second factor",
            here: here.offers_second_factor ? "yes" : "no",
            there: there.offers_second_factor ? "yes" : "no",
          },
        ]
      : []),
  ];
  const take = (key: string, on: boolean) =>
    setTaken((now) => new Set(on ? [...now, key] : [...now].filter((one) => one !== key)));
  const save = () =>
    run(async () => {
      const rulesTaken = new Set([...taken].filter((key) => key !== FACTOR && key !== SITES));
      const body: Schema["PolicyIn"] = {
        name: here.name,
        domains: taken.has(SITES) ? there.domains : here.domains,
        policy: withRules(mine, theirs, rulesTaken),
        source: there.source === "form" || there.source === "refusal" ? there.source : "typed",
        offers_second_factor: taken.has(FACTOR)
          ? there.offers_second_factor
          : here.offers_second_factor,
        revision: here.revision,
      };
      const params = { path: { policy_id: here.policy_id } };
      await answer(client.PUT("/policies/{policy_id}", { params, body }));
      props.onDone();
    });
  return (
    <section className="parted-policy" aria-label={`${here.name}, here and in the file`}>
      <table className="plain small">
        <caption>
          <b>{here.name}</b>: choose rule by rule
        </caption>
        <thead>
          <tr>
            <th>Rule</th>
            <th>
              Here, {SOURCES[here.source] ?? here.source} {day(here.changed_at)}
            </th>
            <th>
              In the file, {SOURCES[there.source] ?? there.source}{" "}
              {there.changed_at ? day(there.changed_at) : ""}
            </th>
          </tr>
        </thead>
        <tbody>
          {lines.map((line) => (
            <tr key={line.key}>
              <th scope="row">{line.label}</th>
              {(["here", "there"] as const).map((side) => (
                <td key={side}>
                  <label className="parted-side">
                    <input
                      type="radio"
                      name={`${here.policy_id} ${line.key}`}
                      checked={taken.has(line.key) === (side === "there")}
                      onChange={() => take(line.key, side === "there")}
                    />{" "}
                    <span className="wraps">{line[side]}</span>
                  </label>
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
      <ProblemNote problem={problem} />
      <div className="row gap-10">
        <Button size="small" onClick={() => setTaken(new Set(lines.map((line) => line.key)))}>
          All of the file
        </Button>
        <Button
          size="small"
          type="primary"
          disabled={busy || taken.size === 0}
          onClick={() => void save()}
        >
          Save the chosen rules
        </Button>
        <Button size="small" onClick={props.onDone}>
          Leave it as it is here
        </Button>
      </div>
    </section>
  );
}

const FACTOR = "offers_second_factor";
const SITES = "domains";
