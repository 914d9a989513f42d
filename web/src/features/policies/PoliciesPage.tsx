import { useQuery } from "@tanstack/react-query";
import { Button } from "antd";
import { useEffect, useRef, useState } from "react";
import { Link } from "react-router";
import { answer, client, type Schema } from "../../api/client";
import { queries } from "../../api/queries";
import { day } from "../../domain/moments";
import { policySentence, type Policy } from "../../domain/policy";
import { sentence } from "../../domain/problems";
import { matches } from "../../domain/search";
import { useClipboard } from "../../shared/clipboard";
import { ProblemNote } from "../../shared/ProblemNote";
import { SecretText } from "../../shared/SecretText";
import { useAct } from "../../shared/useAct";
import { useKeys } from "../../shared/useKeys";
import { useRowPointer } from "../../shared/useRowPointer";
import { PolicyFiles } from "./PolicyFiles";
import { PolicyForm } from "./PolicyForm";
import { SOURCES } from "./sources";
import { Dialogue } from "../../shared/Dialogue";

type Editing = { policy: Schema["PolicyOut"] | null } | null;

/** The library: what each site takes. */
export default function PoliciesPage() {
  const { data, error } = useQuery(queries.policies());
  const [editing, setEditing] = useState<Editing>(null);
  const [anew, setAnew] = useState(0);
  const [removing, setRemoving] = useState<Schema["PolicyOut"] | null>(null);
  const { problem, run } = useAct();
  const { copy } = useClipboard();
  const [typed, setTyped] = useState("");
  const [at, setAt] = useState(0);
  const find = useRef<HTMLInputElement>(null);
  const list = useRef<HTMLTableElement>(null);
  const shown = (data?.policies ?? []).filter((one) =>
    matches([one.name, ...one.domains].join(" "), typed),
  );
  const here = Math.min(at, Math.max(0, shown.length - 1));
  const move = (to: number) => setAt(Math.max(0, Math.min(shown.length - 1, to)));
  const change = (one = shown[here]) => one && setEditing({ policy: one });
  useKeys(
    {
      n: () => setEditing({ policy: null }),
      f: () => find.current?.focus(),
      ArrowDown: () => move(here + 1),
      ArrowUp: () => move(here - 1),
      Home: () => move(0),
      End: () => move(shown.length - 1),
      Enter: () => change(),
      e: () => change(),
    },
    editing === null,
  );
  useRowPointer(list, { choose: setAt });
  useEffect(() => {
    list.current?.querySelector('[aria-selected="true"]')?.scrollIntoView({ block: "nearest" });
  }, [here]);

  const remove = (one: Schema["PolicyOut"]) =>
    run(() =>
      answer(
        client.DELETE("/policies/{policy_id}", { params: { path: { policy_id: one.policy_id } } }),
      ),
    );

  return (
    <main className="page">
      <header className="row spread below-16">
        <h1>Site policies</h1>
        <span className="row gap-10">
          <PolicyFiles />
          <Button type="primary" onClick={() => setEditing({ policy: null })}>
            New policy <kbd>N</kbd>
          </Button>
        </span>
      </header>
      <ProblemNote problem={error ?? problem} />
      {data?.policies.length === 0 && (
        <div className="empty">
          <h2>No policy yet</h2>
          <p>Where a site is fussy, write down what it takes: draws for its logins then fit it.</p>
        </div>
      )}
      {data && data.policies.length > 0 && (
        <label className="field wide-320 below-10">
          <span>
            Find a policy <kbd>F</kbd>
          </span>
          <input
            ref={find}
            className="secret-input in-face"
            placeholder="Its name or a site"
            autoComplete="off"
            spellCheck={false}
            onChange={(event) => {
              setTyped(event.target.value);
              setAt(0);
            }}
            onKeyDown={(event) => {
              if (event.key === "ArrowDown") move(here + 1);
              else if (event.key === "ArrowUp") move(here - 1);
              else if (event.key === "Enter") change();
              else return;
              event.preventDefault();
            }}
          />
        </label>
      )}
      {data && data.policies.length > 0 && shown.length === 0 && (
        <p className="quiet">No policy of that name or site.</p>
      )}
      {shown.length > 0 && (
        <table
          // oxlint-disable-next-line jsx-a11y/no-noninteractive-element-to-interactive-role -- its rows are moved through
          role="grid"
          ref={list}
          className="plain policies"
          aria-label="Policies"
          aria-rowcount={shown.length}
          aria-activedescendant={shown[here] ? `policy-${shown[here].policy_id}` : undefined}
          tabIndex={0}
        >
          <thead>
            <tr>
              <th className="wide-210">Policy</th>
              <th>Takes</th>
              <th className="wide-150">Source</th>
              <th className="wide-190">
                <span className="visually-hidden">acts</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {shown.map((one, index) => (
              <tr
                key={one.policy_id}
                id={`policy-${one.policy_id}`}
                data-index={index}
                aria-rowindex={index + 1}
                aria-selected={index === here}
                className={index === here ? "at" : undefined}
              >
                <td>
                  <b>{one.name}</b>
                  <div className="small quiet">{one.domains.join(", ")}</div>
                </td>
                <td>
                  {policySentence(one.policy as Policy)}
                  {one.conflict && (
                    <p className="problem small">
                      {one.conflict.is_decided && <b>Nothing can satisfy it: </b>}
                      {one.conflict.says}
                      {one.conflict.frees && (
                        <>
                          . It would work{" "}
                          {[one.conflict.frees, ...one.conflict.also_frees].join(", or ")}
                        </>
                      )}
                      .
                    </p>
                  )}
                  {one.not_drawn && !one.conflict && (
                    <p className="problem small">
                      No draw is offered to it:{" "}
                      {sentence({ code: one.not_drawn, data: { rule: "these rules together" } })}
                    </p>
                  )}
                  {one.worth && (
                    <p className="small row policies-page-small">
                      <SecretText secret={one.worth.example} />
                      <span className="quiet">
                        for example; {one.worth.length} characters are worth{" "}
                        {one.worth.is_exact ? "" : "at least "}
                        {one.worth.entropy_bits} bits
                      </span>
                    </p>
                  )}
                  {one.offers_second_factor && (
                    <p className="small quiet">Offers a second factor.</p>
                  )}
                  {one.used_by.length > 0 && (
                    <UsedBy logins={one.used_by} stop={index === here ? 0 : -1} />
                  )}
                </td>
                <td className="small">
                  {SOURCES[one.source] ?? one.source}
                  <div className="quiet">{day(one.changed_at)}</div>
                </td>
                <td className="right">
                  <span className="row policies-page-row">
                    <button
                      type="button"
                      className="link"
                      aria-label={`Change ${one.name}`}
                      tabIndex={index === here ? 0 : -1}
                      onClick={() => setEditing({ policy: one })}
                    >
                      change
                    </button>
                    <button
                      type="button"
                      className="link"
                      aria-label={`Copy ${one.name} as rule attribute`}
                      tabIndex={index === here ? 0 : -1}
                      title="As the text of a rule attribute"
                      onClick={() =>
                        void run(() =>
                          copy(`Rules of ${one.name}`, one.attribute_text, { secret: false }),
                        )
                      }
                    >
                      copy
                    </button>
                    <button
                      type="button"
                      className="link"
                      aria-label={`Delete ${one.name}`}
                      tabIndex={index === here ? 0 : -1}
                      onClick={() => setRemoving(one)}
                    >
                      delete…
                    </button>
                  </span>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {editing && (
        <PolicyForm
          key={anew}
          policy={editing.policy}
          onClose={() => setEditing(null)}
          onAnew={() => setAnew(anew + 1)}
        />
      )}
      <Dialogue
        open={removing !== null}
        title={`Delete the policy ${removing?.name ?? ""}?`}
        okText="Delete it"
        cancelText="Keep it"
        onCancel={() => setRemoving(null)}
        onOk={() => {
          const one = removing;
          setRemoving(null);
          if (one) void remove(one);
        }}
      >
        <p>Logins at its sites are drawn to the usual policy again.</p>
      </Dialogue>
    </main>
  );
}

const SHOWN = 5;

/** Which logins it holds for, those first whose present secret breaks it; stops of the tab key or none. */
function UsedBy({ logins, stop }: { logins: Schema["UsedByOut"][]; stop: number }) {
  const ordered = [...logins].sort((a, b) => Number(b.is_broken) - Number(a.is_broken));
  return (
    <p className="small quiet above-3">
      holds for{" "}
      {ordered.slice(0, SHOWN).map((l, i) => (
        <span key={l.login_id}>
          {i > 0 && ", "}
          <Link to={`/logins/${l.login_id}`} tabIndex={stop}>
            {l.title}
          </Link>
          {l.is_broken && <b className="grave"> (its present secret breaks it)</b>}
        </span>
      ))}
      {ordered.length > SHOWN && ` and ${ordered.length - SHOWN} more`}
    </p>
  );
}
