import { useQuery, useQueryClient } from "@tanstack/react-query";
import { Button, Modal } from "antd";
import { useState } from "react";
import { answer, client, type Schema } from "../../api/client";
import { queries } from "../../api/queries";
import { day } from "../../domain/moments";
import { policySentence, type Policy } from "../../domain/policy";
import { ProblemNote } from "../../shared/ProblemNote";
import { useKeys } from "../../shared/useKeys";
import { PolicyForm } from "./PolicyForm";

type Editing = { policy: Schema["PolicyOut"] | null } | null;

/** The library: what each site takes. */
export default function PoliciesPage() {
  const queryClient = useQueryClient();
  const { data, error } = useQuery(queries.policies());
  const [editing, setEditing] = useState<Editing>(null);
  const [removing, setRemoving] = useState<Schema["PolicyOut"] | null>(null);
  const [problem, setProblem] = useState<unknown>(null);
  useKeys({ n: () => setEditing({ policy: null }) }, editing === null);

  const remove = async (one: Schema["PolicyOut"]) => {
    setProblem(null);
    try {
      await answer(
        client.DELETE("/policies/{policy_id}", { params: { path: { policy_id: one.policy_id } } }),
      );
      await queryClient.invalidateQueries({ queryKey: ["policies"] });
    } catch (failure) {
      setProblem(failure);
    }
  };

  return (
    <main className="page">
      <header className="row spread" style={{ marginBottom: 16 }}>
        <h1>Site policies</h1>
        <Button type="primary" onClick={() => setEditing({ policy: null })}>
          New policy <kbd>N</kbd>
        </Button>
      </header>
      <ProblemNote problem={error ?? problem} />
      {data?.policies.length === 0 && (
        <div className="empty">
          <h2>No policy yet</h2>
          <p>Where a site is fussy, write down what it takes: draws for its logins then fit it.</p>
        </div>
      )}
      {data && data.policies.length > 0 && (
        <table className="plain">
          <thead>
            <tr>
              <th style={{ width: 210 }}>Policy</th>
              <th>Takes</th>
              <th style={{ width: 130 }}>Source</th>
              <th style={{ width: 150 }}>
                <span className="visually-hidden">acts</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {data.policies.map((one) => (
              <tr key={one.policy_id}>
                <td>
                  <b>{one.name}</b>
                  <div className="small quiet">{one.domains.join(", ")}</div>
                </td>
                <td>
                  {policySentence(one.policy as Policy)}
                  {one.conflict && <p className="problem small">{one.conflict.says}</p>}
                  {one.not_counted && (
                    <p className="problem small">
                      Its rule {one.not_counted} is not counted yet: no draw is offered to it.
                    </p>
                  )}
                </td>
                <td className="small">
                  {one.source}, {day(one.changed_at)}
                </td>
                <td className="right">
                  <span className="row" style={{ justifyContent: "flex-end", gap: 14 }}>
                    <button
                      type="button"
                      className="link"
                      aria-label={`Change ${one.name}`}
                      onClick={() => setEditing({ policy: one })}
                    >
                      change
                    </button>
                    <button
                      type="button"
                      className="link"
                      aria-label={`Delete ${one.name}`}
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
      {editing && <PolicyForm policy={editing.policy} onClose={() => setEditing(null)} />}
      <Modal
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
      </Modal>
    </main>
  );
}
