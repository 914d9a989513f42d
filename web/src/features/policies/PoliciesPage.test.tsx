import { fireEvent, screen, waitFor } from "@testing-library/react";
import { expect, test } from "vitest";
import { mount, Refusal, server } from "../../../test/mounted";
import PoliciesPage from "./PoliciesPage";

const POLICY = {
  policy_id: "a".repeat(32),
  name: "Gantry",
  domains: ["gantry.example"],
  policy: { min_length: 8, max_length: 16, classes: [] },
  source: "typed",
  changed_at: "2026-11-20T10:00:00Z",
  offers_second_factor: false,
  attribute_text: "minlength: 8;",
  conflict: null,
  not_drawn: null,
  used_by: [],
  worth: { length: 16, entropy_bits: 80, example: "k3Rt" },
};
const LIST = { default: POLICY.policy, look_alikes: "O0", policies: [POLICY] };

test("a policy is shown with its site, and deleted where that is confirmed", async () => {
  let list = LIST;
  const calls = server({
    "GET /policies": () => list,
    [`DELETE /policies/${POLICY.policy_id}`]: () => {
      list = { ...LIST, policies: [] };
      return null;
    },
  });
  mount(<PoliciesPage />);
  fireEvent.click(await screen.findByRole("button", { name: "Delete Gantry" }));
  expect(calls).toHaveLength(1);
  fireEvent.click(await screen.findByRole("button", { name: "Delete it" }));
  await waitFor(() => expect(calls.some((c) => c.route.startsWith("DELETE"))).toBe(true));
  await waitFor(() => expect(screen.queryByText("gantry.example")).toBeNull());
});

test("policies that cannot be read are said to be so", async () => {
  server({ "GET /policies": new Refusal(500, "unexpected") });
  mount(<PoliciesPage />);
  await screen.findByRole("alert");
});
