import { fireEvent, waitFor } from "@testing-library/react";
import { afterEach, beforeEach, expect, test } from "vitest";
import { keepFocus } from "./keepFocus";

let end = () => {};
beforeEach(() => {
  document.body.innerHTML = `<button id="nav">Logins</button><main><h1>Generate</h1>
    <section id="ends"><h2>Loose ends</h2><p id="end"><button id="act">Let it go</button></p></section>
  </main>`;
  end = keepFocus();
  by("act").focus();
});
afterEach(() => end());

const by = (id: string) => document.getElementById(id)!;
const at = () => document.activeElement?.textContent ?? "";
const frames = () =>
  new Promise((done) => requestAnimationFrame(() => setTimeout(() => setTimeout(done))));

test.each([
  ["end", "Loose ends"],
  ["ends", "Generate"],
])("where %s was taken away the focus goes to %s", async (id, heading) => {
  by(id).remove();
  await waitFor(() => expect(at()).toBe(heading));
});

test("what was disabled while its act ran has it again", async () => {
  const act = by("act") as HTMLButtonElement;
  // As a browser does with the next frame, and jsdom does not.
  act.blur();
  act.disabled = true;
  await frames();
  expect(document.activeElement).toBe(document.body);
  act.disabled = false;
  await waitFor(() => expect(at()).toBe("Let it go"));
});

test.each([
  ["to something else", () => by("nav").focus()],
  ["by the mouse, nowhere", () => void fireEvent.pointerDown(by("ends"))],
  ["to another view", () => history.pushState(null, "", "/logins")],
])("whoever went on %s is left there", async (_, goes) => {
  goes();
  const there = document.activeElement === by("act") ? document.body : document.activeElement;
  by("end").remove();
  await frames();
  expect(document.activeElement).toBe(there);
});
