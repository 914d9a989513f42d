import { useQuery } from "@tanstack/react-query";
import type { Schema } from "../../api/client";
import { queries } from "../../api/queries";
import { LargeRuler, Power } from "../../shared/GuessRuler";
import { MeasureReport } from "../../shared/MeasureReport";
import { ProblemNote } from "../../shared/ProblemNote";

const MADE = { own: "chosen", imported: "brought in", drawn: "drawn" } as const;

type Props = { login: Schema["LoginSheet"]; shown: string | null };

/** What a login's secret is worth: its exact bits where it was drawn here, and its measure. */
export function SecretWorth({ login, shown }: Props) {
  const { data, error } = useQuery(queries.loginMeasure(login.login_id, login.secret_since_at));
  if (error) return <ProblemNote problem={error} />;
  const siteKeeps = data?.site_keeps;
  if (login.made !== "drawn" || !login.entropy_bits)
    return (
      <>
        <MeasureReport found={data ?? null} secret={shown} wide={420} idle="Measuring…" />
        <p className="small quiet">
          It was {MADE[login.made]}.{siteKeeps && ` ${siteKeeps}, and this is what is left of it.`}
        </p>
      </>
    );
  if (siteKeeps && data)
    return (
      <>
        <LargeRuler log10={data.guess_number_log10} wide={420} />
        <p className="small quiet">
          Drawn with {login.entropy_bits} bits; {siteKeeps}: what it keeps stands about{" "}
          <Power log10={data.guess_number_log10} /> guesses.
        </p>
      </>
    );
  return (
    <>
      <LargeRuler log10={login.entropy_bits * Math.log10(2)} wide={420} />
      <p className="small quiet">
        {login.entropy_bits} bits: known by how it was made.
        {data && (
          <>
            {" "}
            Taken as chosen text, about <Power log10={data.guess_number_log10} /> guesses.
          </>
        )}
      </p>
    </>
  );
}
