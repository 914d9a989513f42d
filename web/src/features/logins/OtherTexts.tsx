import { answer, client, type Schema } from "../../api/client";
import { ProblemNote } from "../../shared/ProblemNote";
import { useAct } from "../../shared/useAct";

type Text = Schema["OtherTextOut"];

/** Texts that another copy of the vault had, or that a restore put back: none of them is lost. */
export function OtherTexts({ login }: { login: Schema["LoginSheet"] }) {
  const { problem, run } = useAct();
  if (login.other_texts.length === 0) return null;
  const path = (one: Text) => ({ login_id: login.login_id, text_id: one.text_id });
  const settle = (one: Text, take: boolean) =>
    run(() =>
      answer(
        client.POST("/logins/{login_id}/texts/{text_id}/settle", {
          params: { path: path(one) },
          body: { take },
        }),
      ),
    );
  const remove = (one: Text) =>
    run(() =>
      answer(client.DELETE("/logins/{login_id}/texts/{text_id}", { params: { path: path(one) } })),
    );
  return (
    <section className="stack" aria-label="Other texts of this login">
      <h2>Other texts of this login</h2>
      <table className="plain small">
        <thead>
          <tr>
            <th className="wide-110">Field</th>
            <th>Text</th>
            <th className="wide-260">
              <span className="visually-hidden">acts</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {login.other_texts.map((one) => (
            <tr key={one.text_id}>
              <td>{one.field.replace(/_/g, " ")}</td>
              <td className="breaks-anywhere other-text">{one.text}</td>
              <td>
                <span className="row">
                  {one.is_apart && (
                    <button
                      type="button"
                      className="link"
                      onClick={() => void settle(one, false)}
                      aria-label={`Leave ${one.field} as it is now`}
                    >
                      leave as it is
                    </button>
                  )}
                  <button
                    type="button"
                    className="link"
                    onClick={() => void settle(one, true)}
                    aria-label={`Take this text as ${one.field}`}
                  >
                    take this one
                  </button>
                  {!one.is_apart && (
                    <button
                      type="button"
                      className="link"
                      onClick={() => void remove(one)}
                      aria-label={`Delete this text of ${one.field} for good`}
                    >
                      delete…
                    </button>
                  )}
                </span>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <ProblemNote problem={problem} />
    </section>
  );
}
