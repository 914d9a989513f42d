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

test("the sentence of a policy is changed in its place, and read", async () => {
  const longer = { ...POLICY.policy, max_length: 40 };
  const calls = server({
    "GET /policies": LIST,
    "GET /drafts": [],
    "POST /policies/read": (body: unknown) =>
      (body as { text: string }).text.includes("40")
        ? { policy: longer, unsure: [] }
        : new Refusal(422, "policy_unreadable"),
    [`PUT /policies/${POLICY.policy_id}`]: POLICY,
  });
  mount(<PoliciesPage />);
  fireEvent.click(await screen.findByRole("button", { name: "Change Gantry" }));
  const said = await screen.findByLabelText<HTMLTextAreaElement>(/So New Knot understands it/);
  expect(said.value).toMatch(/^8 to 16 characters/);
  fireEvent.change(said, { target: { value: "something else" } });
  fireEvent.blur(said);
  await screen.findByRole("alert");
  // What was not understood stays to be mended.
  expect(said.value).toBe("something else");
  fireEvent.change(said, { target: { value: "8 to 40 characters" } });
  fireEvent.blur(said);
  await waitFor(() => expect(said.value).toMatch(/^8 to 40 characters/));
  const length = screen.getByLabelText("Greatest length");
  fireEvent.keyDown(length, { key: "Enter" });
  await waitFor(() => expect(calls.some((c) => c.route.startsWith("PUT"))).toBe(true));
  expect(calls.find((c) => c.route.startsWith("PUT"))?.body).toMatchObject({ policy: longer });
});

test("a policy is found by its site, and changed by Enter", async () => {
  server({ "GET /policies": LIST, "GET /drafts": [] });
  mount(<PoliciesPage />);
  const find = await screen.findByLabelText(/Find a policy/);
  fireEvent.change(find, { target: { value: "nowhere" } });
  await screen.findByText("No policy of that name or site.");
  fireEvent.change(find, { target: { value: "EXAMPLE" } });
  fireEvent.keyDown(find, { key: "Enter" });
  await screen.findByRole("dialog", { name: "Policy of Gantry" });
});
