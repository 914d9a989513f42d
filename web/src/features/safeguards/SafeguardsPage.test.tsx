import { fireEvent, screen, waitFor } from "@testing-library/react";
import { expect, test } from "vitest";
import { mount, Refusal, server } from "../../../test/mounted";
import SafeguardsPage from "./SafeguardsPage";

const ACTS = ["reveal", "copy", "edit", "delete", "check", "export"];
const HELD = {
  lock_after_s: 600,
  clipboard_clear_s: 30,
  reveal_allowed: true,
  proof_minutes: 5,
  proof_before: Object.fromEntries(ACTS.map((act) => [act, "session"])),
  corpus_used: true,
  corpora: [],
  range_address: "",
  range_used: false,
  feed_address: "",
  feed_used: false,
  mail_address: "",
  mail_used: false,
  history_keep_days: 0,
  kept_out: [],
  backup_every_h: 24,
  backup_place: "",
  backup_folder: "/data/backups",
  backup_daily: 7,
  backup_weekly: 5,
  backup_monthly: 12,
  backup_problem: "",
  backup_problem_data: {},
  last_backup_at: null,
  vault_path: "/data/own.vault",
};
const AROUND = {
  "GET /strength/own-details": { lines: [], rates: {} },
  "GET /strength/budgets": [],
  "GET /vault/sessions": [],
  "GET /vault/session": { read_count: 9, record_count: 9, damaged: [] },
  "GET /history/past-retention": { secret_count: 0, login_count: 0 },
};

async function changed(): Promise<void> {
  const field = await screen.findByLabelText("Lock after so many seconds");
  fireEvent.change(field, { target: { value: "900" } });
  fireEvent.blur(field);
  fireEvent.click((await screen.findAllByRole("button", { name: /^Save/ }))[0] as Element);
}

test("a changed safeguard is saved as a whole", async () => {
  const calls = server({
    ...AROUND,
    "GET /safeguards": HELD,
    "PUT /safeguards": { ...HELD, lock_after_s: 900 },
  });
  mount(<SafeguardsPage />);
  await changed();
  await waitFor(() => expect(calls.some((c) => c.route === "PUT /safeguards")).toBe(true));
  const sent = calls.find((c) => c.route === "PUT /safeguards")?.body as typeof HELD;
  expect(sent.lock_after_s).toBe(900);
  expect("vault_path" in sent).toBe(false);
});

test("one that is refused names its field and stays as typed", async () => {
  const data = { field: "lock_after_s", reason: "is not between 30 and 28,800" };
  server({
    ...AROUND,
    "GET /safeguards": HELD,
    "PUT /safeguards": new Refusal(422, "field_invalid", data),
  });
  mount(<SafeguardsPage />);
  await changed();
  expect((await screen.findByRole("alert")).textContent).toContain("is not between 30 and 28,800");
});

test("rates are said in units and grouped digits; whoever goes through them changes nothing", async () => {
  const budget = (code: string, usual_rate_per_s: number) => ({
    code,
    label: code,
    guesses_log10: 6,
    basis: "",
    usual_rate_per_s,
  });
  server({
    ...AROUND,
    "GET /safeguards": HELD,
    "GET /strength/budgets": [budget("at the form", 100 / 86_400), budget("fast", 1e10)],
  });
  mount(<SafeguardsPage />);
  const form = await screen.findByLabelText<HTMLInputElement>("Guesses a day, at the form");
  const fast = screen.getByLabelText<HTMLInputElement>("Guesses a second, fast");
  expect([form.value, fast.value]).toEqual(["100", "10,000,000,000"]);
  for (const field of [form, fast]) {
    fireEvent.focus(field);
    fireEvent.blur(field);
  }
  expect(screen.queryByText("the usual")).toBeNull();
  fireEvent.change(fast, { target: { value: "20,000,000,000" } });
  fireEvent.click(await screen.findByText("the usual"));
  expect(fast.value).toBe("10,000,000,000");
});
