import { fireEvent, screen, waitFor } from "@testing-library/react";
import { useState } from "react";
import { Link } from "react-router";
import { afterEach, beforeEach, expect, test } from "vitest";
import { mount, server, type Call } from "../../test/mounted";
import { sessionToken } from "../api/client";
import { useFormDraft } from "../shared/useFormDraft";
import { UnsavedGuard } from "./UnsavedGuard";

function Form() {
  const [text, setText] = useState("");
  const kept = useFormDraft<string>("form-new", () => text, setText, text);
  return (
    <>
      <UnsavedGuard />
      <input aria-label="Text" value={text} onChange={(e) => setText(e.target.value)} />
      <button type="button" onClick={() => void kept.forget()}>
        Save
      </button>
      <button type="button" onClick={() => kept.leave(() => setText("closed"))}>
        Close
      </button>
      <Link to="/elsewhere">away</Link>
    </>
  );
}
const ROUTES = {
  "GET /drafts/form-new": () => null,
  "PUT /drafts/form-new": null,
  "DELETE /drafts/form-new": null,
};
const type = (value: string) =>
  fireEvent.change(screen.getByRole("textbox"), { target: { value } });
const press = (name: string) => fireEvent.click(screen.getByRole("button", { name }));
const where = () => screen.getByTestId("where").textContent;
const sent = (calls: Call[]) => calls.map((call) => call.route.split(" ")[0]);
const asked = () => screen.queryByRole("dialog", { name: "Leave what is not saved?" });

let calls: Call[];
afterEach(() => sessionToken.set(""));
beforeEach(() => {
  sessionToken.set("half");
  calls = server(ROUTES);
  mount(<Form />, "/form", "/form");
});

test.each([
  ["Leave, keep it half-typed", ["GET", "PUT"]],
  ["Throw it away", ["GET", "DELETE"]],
])("a link away from what is not saved asks; then: %s", async (answer, expected) => {
  type("half");
  fireEvent.click(screen.getByText("away"));
  await waitFor(() => expect(asked()).not.toBeNull());
  expect(where()).toBe("/form");
  press(answer);
  await waitFor(() => expect(where()).toBe("/elsewhere"));
  await waitFor(() => expect(sent(calls)).toEqual(expected));
});

test("staying changes nothing, and a page that is closed is asked of by the browser", async () => {
  type("half");
  fireEvent.click(screen.getByText("away"));
  await waitFor(() => expect(asked()).not.toBeNull());
  press("Stay here");
  expect(where()).toBe("/form");
  expect(screen.getByRole<HTMLInputElement>("textbox").value).toBe("half");
  const closed = new Event("beforeunload", { cancelable: true });
  window.dispatchEvent(closed);
  expect(closed.defaultPrevented).toBe(true);
});

test.each([
  ["what was saved", () => press("Save")],
  ["what is again as it was", () => type("")],
])("%s is left unasked", async (_name, undo) => {
  type("half");
  undo();
  fireEvent.click(screen.getByText("away"));
  await waitFor(() => expect(where()).toBe("/elsewhere"));
});

test("a dialogue that is closed asks as well, and only with changes", async () => {
  type("half");
  press("Close");
  await waitFor(() => expect(asked()).not.toBeNull());
  press("Throw it away");
  await waitFor(() => expect(screen.getByRole<HTMLInputElement>("textbox").value).toBe("closed"));
});
