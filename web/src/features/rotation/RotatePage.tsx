import { useQuery } from "@tanstack/react-query";
import { Button } from "antd";
import { useState } from "react";
import { Link } from "react-router";
import type { Schema } from "../../api/client";
import { queries } from "../../api/queries";
import { age, day, dayAndTime } from "../../domain/moments";
import { STATE_SAYS } from "../../domain/rotation";
import { ProblemNote } from "../../shared/ProblemNote";
import { MoreButton, useSome } from "../../shared/Some";
import { useKeys } from "../../shared/useKeys";
import { CampaignDialog } from "./CampaignDialog";
import { Campaigns } from "./Campaigns";
import { NextToRotate } from "./NextToRotate";
import { UnderWay } from "./UnderWay";
import { useNow } from "../../shared/useNow";

/** All rotations: those under way, and those that ended. */
export default function RotatePage() {
  const { data, error } = useQuery(queries.rotations());
  const [planning, setPlanning] = useState(false);
  const now = useNow();
  useKeys({ n: () => setPlanning(true) });
  const open = data?.filter((r) => r.is_open) ?? [];
  const ended = data?.filter((r) => !r.is_open) ?? [];
  return (
    <main className="page">
      <header className="row spread below-16">
        <h1>Rotate</h1>
        <Button onClick={() => setPlanning(true)}>
          New campaign… <kbd>N</kbd>
        </Button>
      </header>
      {planning && <CampaignDialog onClose={() => setPlanning(false)} />}
      <ProblemNote problem={error} />
      {data?.length === 0 && (
        <div className="empty">
          <h2>No rotation yet</h2>
          <p>
            Begin one from a finding in the <Link to="/">worklist</Link> or from a{" "}
            <Link to="/logins">login</Link>, with the key R. The new secret is sealed on disk before
            it is shown, and the old one stays until the new one is known to work.
          </p>
        </div>
      )}
      <div className="rotate-lead">
        {open.length > 0 && <UnderWay rotations={open} />}
        <NextToRotate />
      </div>
      <Campaigns />
      <DueTable now={now} />
      {ended.length > 0 && <EndedTable rotations={ended} now={now} />}
    </main>
  );
}

const DUE_SAYS: Record<Schema["Due"], string> = {
  soon: "due soon",
  today: "due today",
  overdue: "overdue",
};

/** Secrets whose own day, or their site's greatest age, is near or past. */
function DueTable({ now }: { now: number }) {
  const due = useQuery(queries.dueLogins()).data ?? [];
  if (!due.length) return null;
  return (
    <section className="below-28">
      <h2 className="below-6">Due</h2>
      <table className="plain in-lines">
        <thead>
          <tr>
            <th className="wide-34-percent">Login</th>
            <th className="wide-36-percent">Why</th>
            <th>By</th>
            <th>Age</th>
          </tr>
        </thead>
        <tbody>
          {due.map((login) => (
            <tr key={login.login_id}>
              <td>
                <Link to={`/logins/${login.login_id}`}>
                  <b>{login.title}</b>
                </Link>{" "}
                <span className="quiet small">{login.user_name}</span>
              </td>
              <td>
                {login.due && DUE_SAYS[login.due]}:{" "}
                {!login.expires_answered && login.expires_on === login.due_on
                  ? "a day that you set"
                  : "the greatest age that its site allows"}
              </td>
              <td className="small">{login.due_on && day(login.due_on)}</td>
              <td className="small narrow-out">{age(login.secret_since_at, now)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

function EndedTable(props: { rotations: Schema["RotationOut"][]; now: number }) {
  const some = useSome(props.rotations);
  return (
    <section className="below-28">
      <h2 className="below-6">Ended</h2>
      <table className="plain in-lines">
        <thead>
          <tr>
            <th className="wide-34-percent">Login</th>
            <th className="wide-36-percent">Stands at</th>
            <th>Begun</th>
            <th>Last step</th>
          </tr>
        </thead>
        <tbody>
          {some.shown.map((r) => (
            <tr key={r.rotation_id}>
              <td>
                <Link to={`/rotate/${r.rotation_id}`}>
                  <b>{r.title}</b>
                </Link>{" "}
                <span className="quiet small">{r.user_name}</span>
              </td>
              <td>{STATE_SAYS[r.state]}</td>
              <td className="small narrow-out">{dayAndTime(r.began_at, props.now)}</td>
              <td className="small">{dayAndTime(r.changed_at, props.now)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <MoreButton some={some} of="that ended before" />
    </section>
  );
}
