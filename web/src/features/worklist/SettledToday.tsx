import { Link } from "react-router";
import type { Schema } from "../../api/client";

/** How the day went, with the way back to each. */
export function SettledToday({ rows }: { rows: Schema["WorkRows"] }) {
  const { settled_today, settled_today_count: n } = rows;
  if (!n) return null;
  return (
    <details className="small worklist-page-small">
      <summary>{n.toLocaleString("en")} settled today</summary>
      <ul className="settled-today">
        {settled_today.map((one) => (
          <li key={`${one.login_id} ${one.how}`}>
            <Link to={`/logins/${one.login_id}`}>{one.title}</Link>{" "}
            <span className="quiet">{one.how}</span>
          </li>
        ))}
        {n > settled_today.length && (
          <li className="quiet">and {(n - settled_today.length).toLocaleString("en")} more</li>
        )}
      </ul>
    </details>
  );
}
