import { useQuery } from "@tanstack/react-query";
import type { ReactNode } from "react";
import { Link } from "react-router";
import { queries } from "../../api/queries";
import { count, dayAndTime } from "../../domain/moments";
import { useNow } from "../../shared/useNow";
import { notCarried } from "./Losses";

const SHOWN = 3;

/** The other parts of the page and how each stands, while nothing is being brought in. */
export function AsItStands() {
  const now = useNow();
  const losses = useQuery(queries.losses()).data;
  const backups = useQuery(queries.backups()).data;
  const every = useQuery(queries.safeguards()).data?.backup_every_h;
  const recovery = useQuery(queries.recovery());
  const sheets = recovery.data;
  const left = losses ? notCarried(losses) : [];
  const inTheClear = left.length > 0 ? `all logins; not ${left.join(", ")}` : "all logins";
  return (
    <>
      <Part title="Take out" to="take-out">
        <table className="plain small">
          <tbody>
            <tr>
              <td className="wide-168">Sealed bundle</td>
              <td>everything; merges with another copy</td>
            </tr>
            {losses && (
              <tr>
                <td>CSV, Credential Exchange</td>
                <td>{inTheClear}</td>
              </tr>
            )}
          </tbody>
        </table>
      </Part>
      <Part title="Back up" to="back-up">
        {backups && backups.length > 0 ? (
          <table className="plain small">
            <tbody>
              {backups.slice(0, SHOWN).map((one) => (
                <tr key={one.name}>
                  <td className="wide-168">{dayAndTime(one.made_at, now)}</td>
                  <td>{one.is_read_through && "every record read"}</td>
                  <td className="right">
                    {Math.ceil(one.size_bytes / 1024).toLocaleString("en")} KiB
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        ) : (
          backups && <p className="small">None made yet.</p>
        )}
        {every !== undefined && (
          <p className="small quiet">
            {every > 0
              ? `One every ${count(every, "hour")} while the vault is open, and before logins come in.`
              : "None by schedule; one before logins come in."}
          </p>
        )}
      </Part>
      <Part title="Way back in" to="way-back-in">
        {recovery.isSuccess && (
          <p className="small">
            {sheets
              ? `${
                  sheets.count === 1
                    ? "One sheet opens this vault"
                    : `${sheets.threshold} of ${sheets.count} sheets open this vault`
                }, made ${dayAndTime(sheets.made_at, now)}; ${
                  sheets.practised_at
                    ? `practised ${dayAndTime(sheets.practised_at, now)}.`
                    : "never practised."
                }`
              : "No sheet yet: whoever forgets the passphrase loses the vault."}
          </p>
        )}
      </Part>
    </>
  );
}

function Part({ title, to, children }: { title: string; to: string; children: ReactNode }) {
  return (
    <section className="as-it-stands" aria-label={`${title}, as it stands`}>
      <h2>
        <Link to={`?part=${to}`}>{title}</Link>
      </h2>
      {children}
    </section>
  );
}
