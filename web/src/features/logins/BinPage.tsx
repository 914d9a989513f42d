import { useQuery } from "@tanstack/react-query";
import { Button } from "antd";
import { useState } from "react";
import { Link, useNavigate } from "react-router";
import { answer, client } from "../../api/client";
import { queries } from "../../api/queries";
import { count, dayAndTime } from "../../domain/moments";
import { ProblemNote } from "../../shared/ProblemNote";
import { MoreButton, useSome } from "../../shared/Some";
import { useAct } from "../../shared/useAct";
import { useKeys } from "../../shared/useKeys";
import { useNow } from "../../shared/useNow";
import { Dialogue } from "../../shared/Dialogue";

/** What was deleted: kept for 30 days, or until it is emptied on purpose. */
export default function BinPage() {
  const navigate = useNavigate();
  const { data, error } = useQuery(queries.bin());
  const some = useSome(data ?? []);
  const [asking, setAsking] = useState(false);
  const { problem, run } = useAct();
  const now = useNow();
  useKeys({ Escape: () => void navigate("/logins") });

  return (
    <main className="page">
      <header className="row spread below-16">
        <div>
          <p className="small">
            <Link to="/logins">Logins</Link>
          </p>
          <h1>Bin</h1>
        </div>
        {data && data.length > 0 && <Button onClick={() => setAsking(true)}>Empty the bin…</Button>}
      </header>
      <ProblemNote problem={error ?? problem} />
      {data?.length === 0 && (
        <p className="empty">The bin is empty. What is deleted keeps here for 30 days.</p>
      )}
      {data && data.length > 0 && (
        <table className="plain">
          <thead>
            <tr>
              <th>Login</th>
              <th>User name</th>
              <th>Deleted</th>
              <th>
                <span className="visually-hidden">acts</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {some.shown.map((login) => (
              <tr key={login.login_id}>
                <td>
                  <b>{login.title}</b>
                </td>
                <td>{login.user_name}</td>
                <td>{login.deleted_at && dayAndTime(login.deleted_at, now)}</td>
                <td className="right">
                  <Button
                    size="small"
                    aria-label={`Restore ${login.title}`}
                    onClick={() =>
                      void run(() =>
                        answer(
                          client.POST("/logins/{login_id}/restore", {
                            params: { path: { login_id: login.login_id } },
                          }),
                        ),
                      )
                    }
                  >
                    Restore
                  </Button>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      <MoreButton some={some} />
      <Dialogue
        open={asking}
        title={`Delete ${count(data?.length ?? 0, "login")} for good?`}
        okText="Delete for good"
        cancelText="Keep them"
        onCancel={() => setAsking(false)}
        onOk={() => {
          setAsking(false);
          void run(() => answer(client.DELETE("/logins/bin")));
        }}
      >
        <p>Their secrets and histories go too, and cannot be had back except from a backup.</p>
      </Dialogue>
    </main>
  );
}
