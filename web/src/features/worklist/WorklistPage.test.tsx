import { fireEvent, screen, waitFor, within } from "@testing-library/react";
import { beforeEach, expect, test } from "vitest";
import type { Schema } from "../../api/client";
import { mount, Refusal, server } from "../../../test/mounted";
import { forgetRemembered } from "../../shared/remembered";
import { WorklistPage } from "./WorklistPage";

beforeEach(forgetRemembered);

const ID = "a".repeat(32);
const said = (kind: Schema["RowFinding"]["kind"], evidence: string) => {
  const by_passphrase = kind === "like_passphrase";
  return { kind, evidence, why: kind, by_passphrase, by_new_secret: true };
};
const row: Schema["WorkRow"] = {
  row_id: ID,
  kind: "login",
  login_id: ID,
  loose_end_id: null,
  rotation_id: null,
  title: "Gantry",
  user_name: "ilse",
  importance: "normal",
  says: "",
  findings: [said("weak", "Word and year"), said("no_second_factor", "Offers codes")],
  needs: ["new_secret", "second_factor"],
  is_first: true,
  count: 1,
  size: 1,
  members: [],
  elsewhere: [],
  shares_count: 0,
  guess_number_log10: 7,
  since_at: "2026-01-01T00:00:00Z",
  reach: 0,
};
const basis: Schema["Worklist"] = {
  checked_at: "2026-11-20T10:00:00Z",
  checked_count: 9,
  unread_count: 0,
  unmeasured: [],
  asked: [],
  findings: [],
  changed_count: 2,
  policies_changed: 1,
  found_count: 4,
  renewed_count: 0,
  renewable_count: 1,
  waived_count: 0,
  new_count: null,
  gone_count: null,
  notices_used: false,
  notices_at: null,
  earlier: [],
};
const group: Schema["WorkRow"] = {
  ...row,
  row_id: "same-b",
  kind: "group",
  login_id: "b".repeat(32),
  title: "Lumen 1",
  says: "6 logins share one secret, since June 2024",
  findings: [said("reused", "Same as Lumen 2 and 4 others")],
  needs: ["new_secret"],
  is_first: false,
  count: 5,
  size: 6,
  members: ["Lumen 1", "Lumen 2"],
  elsewhere: ["Lumen 9"],
};
const page: Schema["WorkRows"] = {
  basis,
  total: 2,
  first_rows: 1,
  rows: [row, group],
  logins: 6,
  first: 1,
  by_need: { new_secret: 6, second_factor: 1 },
  by_kind: { weak: 1, reused: 5, no_second_factor: 1 },
  rotations: 6,
  rotations_here: 6,
  settled_by_rotations: 6,
  settled_today_count: 1,
  settled_today: [{ login_id: ID, title: "Old Abbey", how: "a new secret" }],
};
const ANSWERS = {
  "POST /checks/worklist/rows": page,
  "POST /checks/worklist/members": { total: 5, members: [] },
  "POST /checks/worklist/logins": { login_ids: ["b".repeat(32), "c".repeat(32)] },
};

test("one row a login with all its findings, counted in logins; its key does what it needs", async () => {
  const calls = server({ ...ANSWERS, "POST /rotations": { rotation_id: "b".repeat(32) } });
  mount(<WorklistPage />, "/", "/");
  await screen.findByRole("heading", { name: "6 logins to see to, 1 of them first" });
  expect(
    screen.getByText(/6 rotations settle 6 findings · 1 second factor to set up/),
  ).toBeTruthy();
  const [first] = screen.getAllByRole("row");
  expect(within(first!).getByText("Word and year")).toBeTruthy();
  expect(within(first!).getByText("Offers codes")).toBeTruthy();
  expect(screen.getByText("1 settled today")).toBeTruthy();
  expect(screen.getByText(/ · 2 logins and 1 site policy changed since · /u)).toBeTruthy();
  fireEvent.keyDown(document.body, { key: "r" });
  await waitFor(() => expect(screen.getByTestId("where").textContent).toContain("/rotate/bbbb"));
  expect(calls.find((c) => c.route === "POST /rotations")?.body).toEqual({ login_id: ID });
});

test("a second need has its own act beside a rotation too; a facet is asked of the server", async () => {
  const rows = [{ ...row, rotation_id: "c".repeat(32) }, group];
  const calls = server({ ...ANSWERS, "POST /checks/worklist/rows": { ...page, rows } });
  mount(<WorklistPage />, "/", "/");
  fireEvent.click(await screen.findByRole("radio", { name: /^Second factor 1/ }));
  await waitFor(() =>
    expect(calls.map((c) => c.body)).toContainEqual({
      facet: "second_factor",
      offset: 0,
      limit: 60,
    }),
  );
  expect(screen.getByRole("button", { name: /^Go on rotating/u })).toBeTruthy();
  fireEvent.click(screen.getByRole("button", { name: "Set up its codes" }));
  await waitFor(() => expect(screen.getByTestId("where").textContent).toContain(`/logins/${ID}`));
});

test("a group is one row: its act is a campaign, and it is accepted for each of its logins", async () => {
  const calls = server({
    ...ANSWERS,
    "POST /campaigns": {},
    "POST /waivers": {},
    "GET /drafts": { drafts: [] },
  });
  mount(<WorklistPage />, "/", "/");
  await screen.findByText("6 logins share one secret, since June 2024");
  fireEvent.keyDown(document.body, { key: "End" });
  fireEvent.keyDown(document.body, { key: "w" });
  await screen.findByText(/Accept: 2 logins, reused/);
  fireEvent.click(screen.getByRole("button", { name: "Accept it" }));
  await waitFor(() => expect(calls.some((c) => c.route === "POST /waivers")).toBe(true));
  const given = calls.find((c) => c.route === "POST /waivers")?.body as { findings: unknown[] };
  expect(given.findings).toHaveLength(2);
  await waitFor(() => expect(screen.queryByRole("dialog")).toBeNull());
  fireEvent.keyDown(document.body, { key: "g" });
  await waitFor(() => expect(calls.some((c) => c.route === "POST /campaigns")).toBe(true));
  expect(calls.find((c) => c.route === "POST /campaigns")?.body).toEqual({
    login_ids: ["b".repeat(32), "c".repeat(32)],
  });
});

test("a secret like the vault's passphrase is settled from either side", async () => {
  const rows = [
    { ...row, findings: [said("like_passphrase", "Like it")], needs: ["new_secret" as const] },
    group,
  ];
  server({ ...ANSWERS, "POST /checks/worklist/rows": { ...page, rows } });
  mount(<WorklistPage />, "/", "/");
  fireEvent.click(await screen.findByRole("button", { name: "Change the vault's passphrase" }));
  await waitFor(() => expect(screen.getByTestId("where").textContent).toBe("/passphrase"));
});

test("a check asks the worklist again and nothing outside; one that fails is said", async () => {
  let fails = false;
  const calls = server({
    ...ANSWERS,
    "POST /checks/worklist/rows": { ...page, basis: { ...basis, unmeasured: ["Lumen"] } },
    "GET /checks/progress": { running: false, done: 0, total: 0 },
    "POST /checks": () => (fails ? new Refusal(409, "check_running") : {}),
  });
  mount(<WorklistPage />, "/", "/");
  await screen.findByText(/not measured: Lumen/);
  const asked = () => calls.filter((c) => c.route === "POST /checks/worklist/rows").length;
  expect(asked()).toBe(1);
  fireEvent.keyDown(document.body, { key: "c" });
  await waitFor(() => expect(asked()).toBe(2));
  expect(calls.some((c) => /mails|notices|change-page/.test(c.route))).toBe(false);
  fails = true;
  fireEvent.keyDown(document.body, { key: "c" });
  await screen.findByRole("alert");
});

test("the facet that was asked for stays when it is settled to the last, and leads on by the tab key", async () => {
  const none = { ...page, total: 0, rows: [] };
  const rows = (body: unknown) => ((body as { facet: string | null }).facet ? none : page);
  server({ ...ANSWERS, "POST /checks/worklist/rows": rows });
  mount(<WorklistPage />, "/?facet=overdue", "/");
  await screen.findByText(/None of these is left/);
  const on = await screen.findByRole("radio", { name: /^Overdue 0/ });
  expect(on.getAttribute("aria-checked")).toBe("true");
  expect(on.tabIndex).toBe(0);
  on.focus();
  fireEvent.keyDown(on, { key: "ArrowDown" });
  await waitFor(() => expect(screen.queryByRole("radio", { name: /^Overdue/ })).toBeNull());
  expect(screen.getByRole("radio", { name: /^Everything/ }).tabIndex).toBe(0);
});

test.each([
  [{ found_count: 0, changed_count: 0, policies_changed: 0 }, /^No finding in 9 logins\. That is/],
  [{}, /^Of 4 findings in 9 logins none is left to do\. 2 logins and 1 site policy changed since/],
])("an empty list says why it is so, and what it does not say", async (of, says) => {
  const none = { ...page, total: 0, rows: [], logins: 0, basis: { ...basis, ...of } };
  server({ ...ANSWERS, "POST /checks/worklist/rows": none });
  mount(<WorklistPage />, "/", "/");
  expect(await screen.findByText(says)).toBeTruthy();
  expect(
    screen.getByText(/not the same as safe: whether a secret is in a breach was not/),
  ).toBeTruthy();
});
