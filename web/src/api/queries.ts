import { keepPreviousData, queryOptions } from "@tanstack/react-query";
import { answer, client, type Schema } from "./client";

/** Lines of a long list that are asked for at once. */
export const PART = 60;

export type LoginsWish = { search: string; folder: string | null; order: "site" | "findings" };

const SOUGHT_KEPT_MS = 60_000;
const FOUND_MOST = 9;

/** Lists that were asked for, by number: a key holds nothing that was typed. */
const wishes: string[] = [];

function numberOf(wish: object): string {
  const said = JSON.stringify(wish);
  const known = wishes.indexOf(said);
  if (known >= 0) return String(known);
  wishes.push(said);
  return String(wishes.length - 1);
}

/** At a lock. */
export function forgetWishes(): void {
  wishes.length = 0;
}

export type Facet = Schema["Need"] | Schema["FindingKind"];

/** Key and fetcher together; no key ever holds a secret, title or user name. */
export const queries = {
  vault: () =>
    queryOptions({ queryKey: ["vault"], queryFn: () => answer(client.GET("/vault")), gcTime: 0 }),
  session: () =>
    queryOptions({
      queryKey: ["session"],
      queryFn: () => answer(client.GET("/vault/session")),
      // So often that a server that went away is said to have gone within two seconds.
      refetchInterval: 1_500,
      // In a page that nobody looks at too, as often as the browser lets it: after a lock neither it
      // nor its strip is to hold anything.
      refetchIntervalInBackground: true,
      retry: false,
    }),
  /** What is sought is no part of a key that outlives the view: each list is named by a number. */
  loginRows: (wish: LoginsWish, part: number) =>
    queryOptions({
      queryKey: ["logins", "rows", numberOf(wish), String(part)],
      queryFn: () =>
        answer(
          client.POST("/logins/rows", { body: { ...wish, offset: part * PART, limit: PART } }),
        ),
      gcTime: SOUGHT_KEPT_MS,
    }),
  dueLogins: () =>
    queryOptions({
      queryKey: ["logins", "due"],
      queryFn: () => answer(client.GET("/logins/due")),
    }),
  foundLogins: (typed: string, limit = FOUND_MOST) =>
    queryOptions({
      queryKey: ["logins", "find", numberOf({ typed, limit })],
      queryFn: () => answer(client.POST("/logins/find", { body: { typed, limit } })),
      placeholderData: keepPreviousData,
      gcTime: SOUGHT_KEPT_MS,
    }),
  /** What a form offers for a login. */
  habits: () =>
    queryOptions({
      queryKey: ["logins", "habits"],
      queryFn: () => answer(client.GET("/logins/habits")),
    }),
  knownLogin: (typed: Schema["TypedLogin"]) =>
    queryOptions({
      queryKey: ["logins", "known", numberOf(typed)],
      queryFn: () => answer(client.POST("/logins/known", { body: typed })),
      placeholderData: keepPreviousData,
      gcTime: SOUGHT_KEPT_MS,
    }),
  login: (login_id: string) =>
    queryOptions({
      queryKey: ["login", login_id],
      queryFn: () => answer(client.GET("/logins/{login_id}", { params: { path: { login_id } } })),
    }),
  bin: () => queryOptions({ queryKey: ["bin"], queryFn: () => answer(client.GET("/logins/bin")) }),
  looseEnds: () =>
    queryOptions({ queryKey: ["loose-ends"], queryFn: () => answer(client.GET("/loose-ends")) }),
  policies: () =>
    queryOptions({ queryKey: ["policies"], queryFn: () => answer(client.GET("/policies")) }),
  budgets: () =>
    queryOptions({
      queryKey: ["budgets"],
      queryFn: () => answer(client.GET("/strength/budgets")),
      staleTime: Infinity,
    }),
  worklist: () =>
    queryOptions({ queryKey: ["worklist"], queryFn: () => answer(client.GET("/checks/worklist")) }),
  workRows: (facet: Facet | null, part: number) =>
    queryOptions({
      queryKey: ["worklist", "rows", facet ?? "all", String(part)],
      queryFn: () =>
        answer(
          client.POST("/checks/worklist/rows", {
            body: { facet, offset: part * PART, limit: PART },
          }),
        ),
    }),
  workMembers: (row_id: string, count: number) =>
    queryOptions({
      queryKey: ["worklist", "members", row_id, String(count)],
      queryFn: () =>
        answer(
          client.POST("/checks/worklist/members", { body: { row_id, offset: 0, limit: count } }),
        ),
      placeholderData: keepPreviousData,
    }),
  findingsOf: (login_id: string) =>
    queryOptions({
      queryKey: ["worklist", "login", login_id],
      queryFn: () =>
        answer(client.GET("/checks/worklist/{login_id}", { params: { path: { login_id } } })),
    }),
  waivers: () =>
    queryOptions({ queryKey: ["waivers"], queryFn: () => answer(client.GET("/waivers")) }),
  reach: () =>
    queryOptions({ queryKey: ["reach"], queryFn: () => answer(client.GET("/checks/reach")) }),
  reachOf: (login_id: string) =>
    queryOptions({
      queryKey: ["reach", login_id],
      queryFn: () =>
        answer(client.GET("/checks/reach/{login_id}", { params: { path: { login_id } } })),
    }),
  progress: () =>
    queryOptions({
      queryKey: ["progress"],
      queryFn: () => answer(client.GET("/checks/progress")),
      refetchInterval: 300,
      gcTime: 0,
    }),
  rotations: () =>
    queryOptions({ queryKey: ["rotations"], queryFn: () => answer(client.GET("/rotations")) }),
  rotation: (rotation_id: string) =>
    queryOptions({
      queryKey: ["rotation", rotation_id],
      queryFn: () =>
        answer(client.GET("/rotations/{rotation_id}", { params: { path: { rotation_id } } })),
    }),
  drive: (rotation_id: string) =>
    queryOptions({
      queryKey: ["drive", rotation_id],
      queryFn: () =>
        answer(client.GET("/rotations/{rotation_id}/drive", { params: { path: { rotation_id } } })),
      gcTime: 0,
    }),
  changePage: (rotation_id: string) =>
    queryOptions({
      queryKey: ["change-page", rotation_id],
      queryFn: () =>
        answer(
          client.POST("/rotations/{rotation_id}/change-page", {
            params: { path: { rotation_id } },
          }),
        ),
      retry: false,
      staleTime: Infinity,
    }),
  mails: () =>
    queryOptions({
      queryKey: ["mails"],
      queryFn: () => answer(client.POST("/mails")),
      retry: false,
      gcTime: 0,
    }),
  notices: () =>
    queryOptions({
      queryKey: ["notices"],
      queryFn: () => answer(client.POST("/notices/fetch", { body: { at_once: false } })),
      retry: false,
      staleTime: 15 * 60_000,
    }),
  report: (wish: Schema["ReportIn"]) =>
    queryOptions({
      queryKey: ["report", wish],
      queryFn: () => answer(client.POST("/reports", { body: wish })),
    }),
  campaigns: () =>
    queryOptions({ queryKey: ["campaigns"], queryFn: () => answer(client.GET("/campaigns")) }),
  campaignChoices: (way: Schema["Way"], typed: string) =>
    queryOptions({
      queryKey: ["campaigns", "choices", numberOf({ way, typed })],
      queryFn: () =>
        answer(client.POST("/campaigns/choices", { body: { way, typed, limit: PART } })),
      placeholderData: keepPreviousData,
      gcTime: SOUGHT_KEPT_MS,
    }),
  pastRetention: () =>
    queryOptions({
      queryKey: ["past-retention"],
      queryFn: () => answer(client.GET("/history/past-retention")),
    }),
  events: () =>
    queryOptions({ queryKey: ["events"], queryFn: () => answer(client.GET("/events")) }),
  ownDetails: () =>
    queryOptions({
      queryKey: ["own-details"],
      queryFn: () => answer(client.GET("/strength/own-details")),
    }),
  loginMeasure: (login_id: string, since: string) =>
    queryOptions({
      queryKey: ["login-measure", login_id, since],
      queryFn: () =>
        answer(client.POST("/logins/{login_id}/measure", { params: { path: { login_id } } })),
      gcTime: 0,
    }),
  passphraseFacts: () =>
    queryOptions({
      queryKey: ["passphrase-facts"],
      queryFn: () => answer(client.GET("/vault/passphrase")),
      gcTime: 0,
    }),
  clearFiles: () =>
    queryOptions({
      queryKey: ["clear-files"],
      queryFn: () => answer(client.GET("/exports/files")),
      refetchInterval: 30_000,
    }),
  backups: () =>
    queryOptions({ queryKey: ["backups"], queryFn: () => answer(client.GET("/backups")) }),
  /** Counted over the whole vault, so only where it is shown, and then anew. */
  losses: () =>
    queryOptions({
      queryKey: ["losses"],
      queryFn: () => answer(client.GET("/exports/losses")),
      refetchOnMount: "always",
    }),
  recovery: () =>
    queryOptions({ queryKey: ["recovery"], queryFn: () => answer(client.GET("/recovery")) }),
  sessions: () =>
    queryOptions({
      queryKey: ["sessions"],
      queryFn: () => answer(client.GET("/vault/sessions")),
      refetchOnMount: "always",
    }),
  /** The draws that are kept; of which one is shown is part of the question, for it is one more. */
  draws: (current: string | undefined) =>
    queryOptions({
      queryKey: ["draws", current],
      queryFn: () => answer(client.GET("/draws")),
      enabled: current !== undefined,
      gcTime: 0,
    }),
  /** How real dice of so many sides pick a word of a list. */
  wordList: () =>
    queryOptions({
      queryKey: ["word-list"],
      queryFn: () => answer(client.GET("/draws/list")),
      staleTime: Infinity,
      gcTime: 0,
    }),
  dice: (sides: number, list: Pick<Schema["WordsShape"], "list_size" | "language">) =>
    queryOptions({
      queryKey: ["dice", sides, list.list_size, list.language],
      queryFn: () => {
        const { list_size, language } = list;
        const query = { sides, list_size, language };
        return answer(client.GET("/draws/dice", { params: { query } }));
      },
      staleTime: Infinity,
    }),
  firstHour: () =>
    queryOptions({
      queryKey: ["first-hour"],
      queryFn: () => answer(client.GET("/first-hour")),
      refetchOnMount: "always",
    }),
  safeguards: () =>
    queryOptions({ queryKey: ["safeguards"], queryFn: () => answer(client.GET("/safeguards")) }),
};
