/** Several logins at one site stand together under its name. */
export type Grouped<T> =
  { kind: "site"; domain: string; count: number } | { kind: "login"; login: T; inGroup: boolean };

/** Those with findings first, in the order of the worklist; the others as they are. */
export function byFindings<T extends { login_id: string }>(
  logins: T[],
  places: Map<string, number>,
): Grouped<T>[] {
  const last = places.size;
  const place = (login: T) => places.get(login.login_id) ?? last;
  return [...logins]
    .sort((a, b) => place(a) - place(b))
    .map((login) => ({ kind: "login", login, inGroup: false }));
}

export function bySite<T extends { domain: string; title: string }>(logins: T[]): Grouped<T>[] {
  const members = new Map<string, T[]>();
  for (const login of logins) {
    const key = login.domain || `\u0000${members.size}`;
    members.set(key, [...(members.get(key) ?? []), login]);
  }
  const rows: Grouped<T>[] = [];
  for (const [domain, group] of members) {
    const inGroup = group.length > 1;
    if (inGroup) rows.push({ kind: "site", domain, count: group.length });
    for (const login of group) rows.push({ kind: "login", login, inGroup });
  }
  return rows;
}
