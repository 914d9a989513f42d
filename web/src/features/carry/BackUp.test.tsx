import { fireEvent, screen, waitFor } from "@testing-library/react";
import { expect, test } from "vitest";
import { mount, Refusal, server } from "../../../test/mounted";
import { BackUp } from "./BackUp";

const MADE = {
  name: "newknot-1a2b3c4d-20261120-100000.vault",
  path: "/data/backups/newknot-1a2b3c4d-20261120-100000.vault",
  size_bytes: 40960,
  made_at: "2026-11-20T10:00:00Z",
};
const SAFEGUARDS = {
  backup_every_h: 24,
  backup_problem: "",
  backup_problem_data: {},
  last_backup_at: null,
  backup_folder: "/data/backups",
  backup_place: "",
  backup_daily: 7,
  backup_weekly: 5,
  backup_monthly: 12,
};

test("a backup is made, said to be read through, and listed", async () => {
  let made: (typeof MADE)[] = [];
  server({
    "GET /safeguards": SAFEGUARDS,
    "GET /backups": () => made,
    "POST /backups": () => {
      made = [MADE];
      return MADE;
    },
  });
  mount(<BackUp />);
  fireEvent.click(await screen.findByRole("button", { name: /Make a sealed backup/ }));
  expect((await screen.findByRole("status")).textContent).toContain("read through");
  const kept = screen.getByRole("complementary").textContent;
  expect(kept).toContain("/data/backups, beside the vault");
  expect(kept).toContain("7 days, 5 weeks, 12 months");
  await waitFor(() => expect(screen.getAllByText(MADE.name, { exact: false })).not.toHaveLength(0));
});

test("one that would not give everything back names what, and what failed by schedule too", async () => {
  const data = { part: "login", title: "Gantry" };
  server({
    "GET /safeguards": {
      ...SAFEGUARDS,
      backup_problem: "backup_not_verified",
      backup_problem_data: data,
    },
    "GET /backups": [],
    "POST /backups": new Refusal(424, "backup_not_verified", data),
  });
  mount(<BackUp />);
  expect((await screen.findByRole("alert")).textContent).toContain("of Gantry, login");
  fireEvent.click(screen.getByRole("button", { name: /Make a sealed backup/ }));
  await waitFor(() => expect(screen.getAllByRole("alert")).toHaveLength(2));
});

test("a restore says all that it changes before it is done", async () => {
  const line = { title: "Gantry", user_name: "ilse", kept_secrets: 0, kept_texts: 0 };
  const calls = server({
    "GET /safeguards": SAFEGUARDS,
    "GET /backups": [MADE],
    [`POST /backups/${MADE.name}/look`]: [
      { ...line, login_id: "a", kind: "login", what: "differs", kept_secrets: 2 },
      { ...line, login_id: "b", kind: "login", what: "gone" },
      { ...line, login_id: "c", kind: "rotation", what: "gone" },
      { ...line, login_id: "d", kind: "loose_end", what: "made" },
    ],
    [`POST /backups/${MADE.name}/restore`]: [],
  });
  mount(<BackUp />);
  fireEvent.click(await screen.findByRole("button", { name: /Look into/ }));
  const dialog = await screen.findByRole("dialog");
  expect(dialog.textContent).toContain("2 logins, 1 rotation, 1 loose end would change");
  expect(dialog.textContent).toContain("2 newer secrets go to the history");
  expect(dialog.textContent).toContain("1 login made since goes to the bin");
  expect(calls.some((one) => one.route.endsWith("/restore"))).toBe(false);
  fireEvent.click(screen.getByRole("button", { name: "Restore it" }));
  await waitFor(() => expect(calls.some((one) => one.route.endsWith("/restore"))).toBe(true));
  // No backup came of it: the vault's present could not be read whole.
  expect((await screen.findByText("Restored.")).parentElement?.textContent).toContain("….failed");
});
