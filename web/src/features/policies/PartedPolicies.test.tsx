import { fireEvent, screen, waitFor, within } from "@testing-library/react";
import { expect, test } from "vitest";
import { mount, Refusal, server } from "../../../test/mounted";
import type { Schema } from "../../api/client";
import { PartedPolicies } from "./PartedPolicies";

const RULES = { min_classes: 0, excluded: "", max_age_days: null, forbidden: [] };
const LOWER = { name: "lower", characters: "abc", minimum: 1 };
const DIGIT = { name: "digit", characters: "0123", minimum: 2 };
const HERE = {
  policy_id: "a".repeat(32),
  name: "Gantry",
  domains: ["gantry.example"],
  policy: { ...RULES, min_length: 8, max_length: 16, classes: [LOWER] },
  source: "typed",
  changed_at: "2026-11-20T10:00:00Z",
  offers_second_factor: false,
  revision: "3",
} as unknown as Schema["PolicyOut"];
const THERE: Schema["PartedPolicyOut"] = {
  policy_id: HERE.policy_id,
  domains: ["gantry.example", "gantry-post.example"],
  policy: {
    ...RULES,
    min_length: 8,
    max_length: 40,
    forbidden: ["gantry"],
    classes: [LOWER, DIGIT],
  },
  source: "refusal",
  changed_at: "2026-11-01T10:00:00Z",
  offers_second_factor: true,
};
const ROUTE = `PUT /policies/${HERE.policy_id}`;

test("of two that part, each rule is shown on both sides and taken by itself", async () => {
  const calls = server({ [ROUTE]: HERE });
  mount(<PartedPolicies parted={[THERE]} library={[HERE]} />);
  const rows = screen.getAllByRole("row").slice(1);
  expect(rows.map((row) => within(row).getByRole("rowheader").textContent)).toEqual([
    "Greatest length",
    "Forbidden texts",
    "Digits",
    "Sites",
    "Offers a second factor",
  ]);
  expect(screen.getByText(/In the file, learned from a refusal 1 Nov 2026/)).toBeTruthy();
  expect(screen.getByRole("button", { name: "Save the chosen rules" })).toHaveProperty(
    "disabled",
    true,
  );
  fireEvent.click(within(rows[0]!).getByLabelText("40"));
  fireEvent.click(within(rows[2]!).getByLabelText("0123, at least 2"));
  fireEvent.click(screen.getByRole("button", { name: "Save the chosen rules" }));
  await waitFor(() => expect(calls).toHaveLength(1));
  expect(calls[0]?.body).toMatchObject({
    policy: { max_length: 40, forbidden: [], classes: [LOWER, DIGIT] },
    domains: HERE.domains,
    offers_second_factor: false,
    source: "refusal",
    revision: "3",
  });
  await waitFor(() => expect(screen.queryByRole("table")).toBeNull());
});

test("one that cannot be saved stays, with why", async () => {
  server({ [ROUTE]: new Refusal(409, "changed_meanwhile") });
  mount(<PartedPolicies parted={[THERE]} library={[HERE]} />);
  fireEvent.click(screen.getByRole("button", { name: "All of the file" }));
  fireEvent.click(screen.getByRole("button", { name: "Save the chosen rules" }));
  await screen.findByRole("alert");
  expect(screen.getByRole("table")).toBeTruthy();
});
