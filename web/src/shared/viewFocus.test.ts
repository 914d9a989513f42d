import { fireEvent, waitFor } from "@testing-library/react";
import { beforeEach, expect, test } from "vitest";
import { focusViewOnceThere } from "./viewFocus";

beforeEach(() => {
  document.body.innerHTML = '<button id="nav">Logins</button><main aria-busy="true"></main>';
});

function arrives(): void {
  const main = document.querySelector("main")!;
  main.innerHTML = '<h1>Logins</h1><div role="grid" tabindex="0"></div>';
  main.removeAttribute("aria-busy");
}
const role = () => document.activeElement?.getAttribute("role");

test("a view takes the focus when it stands, and a second time nothing is taken", async () => {
  focusViewOnceThere();
  arrives();
  await waitFor(() => expect(role()).toBe("grid"));
  document.getElementById("nav")!.focus();
  arrives();
  await new Promise((done) => setTimeout(done));
  expect(document.activeElement?.id).toBe("nav");
});

test.each([
  ["the tab key", () => fireEvent.keyDown(document.body, { key: "Tab" })],
  ["a press of the mouse", () => fireEvent.pointerDown(document.body)],
  ["another view", () => leave()],
])("whoever went on by %s while it was coming is left there", async (_, goes) => {
  leave = focusViewOnceThere();
  goes();
  arrives();
  await new Promise((done) => setTimeout(done));
  expect(document.activeElement).toBe(document.body);
});
let leave = () => {};
