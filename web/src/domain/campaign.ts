import type { Schema } from "../api/client";
import { FINDING_KINDS, FINDING_LABELS, NOT_BY_A_NEW_SECRET } from "./findings";

export type Way = "finding" | "group" | "site" | "reach" | "hand";
export const WAYS: Way[] = ["finding", "group", "site", "reach", "hand"];
export const WAY_LABELS: Record<Way, string> = {
  finding: "By finding",
  group: "By reuse group",
  site: "By site",
  reach: "By what falls with one",
  hand: "By hand",
};

/** login_ids null: what falls with it is asked for once it is chosen. */
export type Choice = { id: string; label: string; count: number; login_ids: string[] | null };

type Finding = Pick<Schema["FindingRow"], "login_id" | "kind">;
type Login = Pick<Schema["LoginRow"], "login_id" | "title" | "user_name" | "domain" | "has_secret">;
type Cords = Pick<Schema["ReachMap"], "knots" | "groups">;

/** What a campaign can be made of, each with its logins; the largest first. */
export function choicesBy(
  way: Way,
  findings: Finding[],
  map: Cords | null,
  logins: Login[],
): Choice[] {
  const title = new Map(logins.map((login) => [login.login_id, login.title]));
  switch (way) {
    case "finding":
      return FINDING_KINDS.filter((kind) => !NOT_BY_A_NEW_SECRET.includes(kind))
        .map((kind) =>
          choice(
            kind,
            FINDING_LABELS[kind],
            unique(findings.flatMap((f) => (f.kind === kind && f.login_id) || [])),
          ),
        )
        .filter((one) => one.count > 0);
    case "group":
      return sorted(
        (map?.groups ?? []).map((group, i) => {
          const first = title.get(group.login_ids[0] ?? "") ?? "one that is gone";
          const says = group.kind === "same" ? "same secret as" : "secret like";
          return choice(String(i), `${says} ${first}`, group.login_ids);
        }),
      );
    case "site": {
      const sites = new Map<string, string[]>();
      for (const login of logins)
        if (login.domain && login.has_secret)
          sites.set(login.domain, [...(sites.get(login.domain) ?? []), login.login_id]);
      return sorted([...sites].map(([site, login_ids]) => choice(site, site, login_ids)));
    }
    case "reach":
      return (map?.knots ?? [])
        .filter((knot) => knot.reach > 0 && title.has(knot.login_id))
        .map((knot) => ({
          id: knot.login_id,
          label: `${knot.title}${knot.user_name && `, ${knot.user_name}`}`,
          count: knot.reach + 1,
          login_ids: null,
        }));
    case "hand":
      return [];
  }
}

/** The logins of these ids that have a secret to rotate. */
export function loginsOf<T extends Login>(login_ids: string[], logins: T[]): T[] {
  const wanted = new Set(login_ids);
  return logins.filter((login) => wanted.has(login.login_id) && login.has_secret);
}

const unique = (ids: string[]) => [...new Set(ids)];
const choice = (id: string, label: string, login_ids: string[]): Choice => ({
  id,
  label,
  count: login_ids.length,
  login_ids,
});
const sorted = (choices: Choice[]) =>
  choices.sort((a, b) => b.count - a.count || a.label.localeCompare(b.label));
