import { fireEvent, screen, waitFor } from "@testing-library/react";
import { expect, test } from "vitest";
import { loginRow, mount, Refusal, server } from "../../test/mounted";
import LoginFormPage from "../features/logins/LoginFormPage";

const SHEET = {
  ...loginRow("Gantry"),
  notes: "by the day",
  fields: [],
  secret_field_names: [],
  resets_by: null,
  driven: false,
  driven_at: [],
  history: [],
  history_is_damaged: false,
  revision: "1.1",
};
const ID = SHEET.login_id;

/** A form in which the notes are typed, while another window saves others. */
async function typedMeanwhile() {
  let sheet = SHEET;
  const calls = server({
    [`GET /logins/${ID}`]: () => sheet,
    "GET /logins": { logins: [], damaged: [] },
    "GET /policies": { policies: [], default: {}, look_alikes: "" },
    [`PUT /logins/${ID}`]: () =>
      calls.filter((one) => one.route.startsWith("PUT")).length === 1
        ? new Refusal(409, "changed_meanwhile")
        : SHEET,
  });
  mount(<LoginFormPage />, `/logins/${ID}/edit`, "/logins/:loginId/edit");
  const notes = await screen.findByLabelText(/^Notes/);
  fireEvent.change(notes, { target: { value: "by the week" } });
  sheet = { ...SHEET, notes: "by the hour", revision: "2.1" };
  fireEvent.click(screen.getByRole("button", { name: "Save" }));
  const told = await screen.findByRole("alert", { name: "Changed in another window" });
  return { calls, notes, told };
}

test("the second to save sees both, and may save its own over what it has seen", async () => {
  const { calls, told } = await typedMeanwhile();
  expect(told.textContent).toContain("by the week");
  expect(told.textContent).toContain("by the hour");
  fireEvent.click(screen.getByRole("button", { name: "Save what is typed here" }));
  await waitFor(() => {
    const sent = calls.filter((one) => one.route.startsWith("PUT")).map((one) => one.body);
    expect(sent).toMatchObject([{ revision: "1.1" }, { revision: "2.1", notes: "by the week" }]);
  });
});

test("or takes what was saved, and goes on from there", async () => {
  const { calls, notes } = await typedMeanwhile();
  fireEvent.click(screen.getByRole("button", { name: "Take what was saved" }));
  expect((notes as HTMLTextAreaElement).value).toBe("by the hour");
  fireEvent.click(await screen.findByRole("button", { name: /Save$/ }));
  await waitFor(() =>
    expect(calls.filter((one) => one.route.startsWith("PUT"))[1]?.body).toMatchObject({
      revision: "2.1",
      notes: "by the hour",
    }),
  );
});
