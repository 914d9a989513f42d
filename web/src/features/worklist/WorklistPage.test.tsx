import { fireEvent, screen, waitFor } from "@testing-library/react";
import { expect, test } from "vitest";
import type { Schema } from "../../api/client";
import { mount, Refusal, server } from "../../../test/mounted";
import { WorklistPage } from "./WorklistPage";

const ID = "a".repeat(32);
const finding: Schema["FindingRow"] = {
  kind: "weak",
  login_id: ID,
  loose_end_id: null,
  rotation_id: null,
  title: "Gantry",
  user_name: "ilse",
  evidence: "Word and year",
  others: [],
  guess_number_log10: 7,
  importance: "normal",
  reach: 0,
  since_at: "2026-01-01T00:00:00Z",
  why: "weak",
};
const worklist: Schema["Worklist"] = {
  checked_at: "2026-11-20T10:00:00Z",
  checked_count: 2,
  unread_count: 0,
  unmeasured: [],
  asked: [],
  findings: [finding],
  renewed_count: 0,
  renewable_count: 1,
  waived_count: 0,
  new_count: null,
  gone_count: null,
  notices_used: false,
  notices_at: null,
  earlier: [],
};

test("the current finding is rotated by its key", async () => {
  const calls = server({
    "GET /checks/worklist": worklist,
    "POST /rotations": { rotation_id: "b".repeat(32) },
  });
  mount(<WorklistPage />, "/", "/");
  await screen.findByText("Word and year");
  fireEvent.keyDown(document.body, { key: "r" });
  await waitFor(() => expect(screen.getByTestId("where").textContent).toContain("/rotate/bbbb"));
  expect(calls.find((c) => c.route === "POST /rotations")?.body).toEqual({ login_id: ID });
});

test("a check asks the worklist again and nothing outside; one that fails is said", async () => {
  let fails = false;
  const calls = server({
    "GET /checks/worklist": { ...worklist, unmeasured: ["Lumen"] },
    "GET /checks/progress": { running: false, done: 0, total: 0 },
    "POST /checks": () => (fails ? new Refusal(409, "check_running") : {}),
  });
  mount(<WorklistPage />, "/", "/");
  await screen.findByText(/not measured: Lumen/);
  const asked = () => calls.filter((c) => c.route === "GET /checks/worklist").length;
  expect(asked()).toBe(1);
  fireEvent.keyDown(document.body, { key: "c" });
  await waitFor(() => expect(asked()).toBe(2));
  expect(calls.some((c) => /mails|notices|change-page/.test(c.route))).toBe(false);
  fails = true;
  fireEvent.keyDown(document.body, { key: "c" });
  await screen.findByRole("alert");
});
