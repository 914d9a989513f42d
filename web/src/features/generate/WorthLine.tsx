import type { Schema } from "../../api/client";
import { power, type Policy } from "../../domain/policy";
import { Power } from "../../shared/GuessRuler";

type Props = { drawn: Schema["DrawOut"] | null; policy: Policy; atSite: boolean };

/** The bits, and the sentence that explains them. */
export function WorthLine({ drawn, policy, atSite }: Props) {
  if (!drawn) return <b className="size-21">no secret</b>;
  const size = power(drawn.space_size_log10, !drawn.is_exact);
  const count = (
    <>
      {drawn.is_exact ? "" : "at least "}
      {size.mantissa} × 10<sup>{size.exponent}</sup>
    </>
  );
  if (drawn.entropy_bits === null)
    return (
      <div className="row worth-line-row">
        <b className="size-21">
          about <Power log10={drawn.space_size_log10} /> guesses
        </b>
        <span>chosen text: no bits, however it was taken</span>
      </div>
    );
  const chosen = drawn.looked_at > 1;
  return (
    <div>
      <div className="row worth-line-row">
        <b className="size-21">
          {drawn.is_exact && !chosen ? "" : "at least "}
          {drawn.entropy_bits} bits
        </b>
        <span>
          one of {count} equally likely, by counting every {what(drawn, policy, atSite)}
        </span>
      </div>
      {chosen && (
        <p className="small quiet above-4">
          {drawn.whole_bits} bits for the draw; you could have ended with{" "}
          {drawn.looked_at.toLocaleString("en")} texts by now, and choosing among them costs at most{" "}
          {((drawn.whole_bits ?? 0) - drawn.entropy_bits).toFixed(2)}.
        </p>
      )}
    </div>
  );
}

function what(drawn: Schema["DrawOut"], policy: Policy, atSite: boolean): string {
  const taken = atSite ? " that the site takes" : "";
  switch (drawn.kind) {
    case "words":
      return `choice of such words${taken}`;
    case "sentence":
      return `sentence of this form${taken}`;
    case "pin":
      return "PIN of this length but the obvious ones";
    default:
      return policy.keeps_first && policy.keeps_first < drawn.secret.length
        ? `beginning of ${policy.keeps_first} that the site keeps`
        : "string that this policy allows at this length";
  }
}
