import { fireEvent, screen, waitFor } from "@testing-library/react";
import { expect, test } from "vitest";
import { loginRow, mount, Refusal, server } from "../../../test/mounted";
import LoginsPage from "./LoginsPage";

const LIST = {
  logins: [loginRow("Gantry"), loginRow("Lumen", { user_name: "maud" })],
  damaged: [],
};
const FRESH = { "GET /logins": LIST, "GET /checks/worklist": new Refusal(404, "not_found") };

test("a login is found as one types, and opened by Enter", async () => {
  server(FRESH);
  mount(<LoginsPage />, "/logins", "/logins");
  await waitFor(() => expect(screen.getByText("Gantry")).toBeTruthy());
  const field = screen.getByRole("textbox", { name: "Find as you type" });
  fireEvent.change(field, { target: { value: "maud" } });
  await waitFor(() => expect(screen.queryByText("Gantry")).toBeNull());
  fireEvent.keyDown(field, { key: "Enter" });
  expect(screen.getByTestId("where").textContent).toBe(`/logins/${loginRow("Lumen").login_id}`);
});

test("the mouse chooses a row, and keys then act on it; a refusal is said", async () => {
  const calls = server({
    ...FRESH,
    [`POST /logins/${loginRow("Lumen").login_id}/secret`]: new Refusal(404, "nothing_held"),
  });
  mount(<LoginsPage />, "/logins", "/logins");
  fireEvent.click((await screen.findByText("Lumen")).closest('[role="listitem"]') as Element);
  fireEvent.keyDown(document.body, { key: "y" });
  await screen.findByRole("alert");
  expect(calls.at(-1)?.route).toContain(loginRow("Lumen").login_id);
  fireEvent.keyDown(document.body, { key: "n" });
  expect(screen.getByTestId("where").textContent).toBe("/logins/new");
});
