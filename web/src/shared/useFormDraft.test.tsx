import { act, cleanup, fireEvent, screen, waitFor } from "@testing-library/react";
import { useState } from "react";
import { afterEach, beforeEach, expect, test, vi } from "vitest";
import { mount, server, type Call } from "../../test/mounted";
import { sessionToken } from "../api/client";
import { noteEntered } from "./entered";
import { DraftNote, useFormDraft } from "./useFormDraft";

function Form() {
  const [text, setText] = useState("");
  const kept = useFormDraft<string>("form-new", () => text, setText, text);
  return (
    <>
      <DraftNote draft={kept} onAnew={() => setText("")} />
      <input aria-label="Text" value={text} onChange={(e) => setText(e.target.value)} />
      <button type="button" onClick={() => void kept.forget()}>
        Save
      </button>
    </>
  );
}
const NONE = { "GET /drafts/form-new": () => null };
const TAKES = { "PUT /drafts/form-new": null, "DELETE /drafts/form-new": null };
const routes = (calls: Call[]) => calls.map((call) => call.route.split(" ")[0]);
const type = (value: string) =>
  fireEvent.change(screen.getByRole("textbox"), { target: { value } });

beforeEach(() => sessionToken.set("half"));
afterEach(() => void vi.useRealTimers());

test("what is typed is kept two seconds after the last key, and not before", async () => {
  vi.useFakeTimers();
  const calls = server({ ...NONE, ...TAKES });
  mount(<Form />);
  for (const value of ["h", "ha", "hal"]) {
    type(value);
    await act(() => vi.advanceTimersByTimeAsync(1500));
  }
  expect(routes(calls)).toEqual(["GET"]);
  await act(() => vi.advanceTimersByTimeAsync(600));
  expect(calls[1]).toEqual({ route: "PUT /drafts/form-new", body: { content: "hal" } });
});

test.each([
  ["a form that is left keeps the last keys too", "half", ["GET", "PUT"]],
  ["where it is left by a lock nothing is sent", "", ["GET"]],
])("%s", async (_name, token, sent) => {
  vi.useFakeTimers();
  const calls = server({ ...NONE, ...TAKES });
  mount(<Form />);
  type("half");
  sessionToken.set(token);
  cleanup();
  await vi.advanceTimersByTimeAsync(3000);
  expect(routes(calls)).toEqual(sent);
});

test("what was saved is kept no longer, nor what was typed just before", async () => {
  vi.useFakeTimers();
  const calls = server({ ...NONE, ...TAKES });
  mount(<Form />);
  type("half");
  fireEvent.click(screen.getByRole("button", { name: "Save" }));
  await act(() => vi.advanceTimersByTimeAsync(5000));
  expect(routes(calls)).toEqual(["GET", "DELETE"]);
});

const held = { content: "half-typed", saved_at: "2026-11-20T10:00:00Z" };

test("in a form that is opened it is offered, and does not come between what is typed", async () => {
  const calls = server({ "GET /drafts/form-new": held, ...TAKES });
  mount(<Form />);
  await screen.findByRole("button", { name: "Bring it back" });
  expect(screen.getByRole<HTMLInputElement>("textbox").value).toBe("");
  fireEvent.click(screen.getByRole("button", { name: "Bring it back" }));
  expect(screen.getByRole<HTMLInputElement>("textbox").value).toBe("half-typed");
  expect(routes(calls)).toEqual(["GET"]);
});

test("where the vault was opened again it comes back as it was left, and is said so", async () => {
  noteEntered();
  const calls = server({ "GET /drafts/form-new": held, ...TAKES });
  mount(<Form />);
  await waitFor(() =>
    expect(screen.getByRole<HTMLInputElement>("textbox").value).toBe("half-typed"),
  );
  expect(screen.getByRole("status").textContent).toContain("As you left it");
  expect(routes(calls)).toEqual(["GET"]);
  fireEvent.click(screen.getByRole("button", { name: "Begin anew" }));
  await waitFor(() => expect(screen.getByRole<HTMLInputElement>("textbox").value).toBe(""));
  expect(routes(calls)).toContain("DELETE");
  expect(screen.queryByRole("status")).toBeNull();
});
