import { fireEvent, screen, waitFor } from "@testing-library/react";
import { beforeEach, expect, test } from "vitest";
import type { Schema } from "../../api/client";
import { forgetRemembered } from "../../shared/remembered";
import { loginRow, mount, Refusal, server } from "../../../test/mounted";
import LoginsPage from "./LoginsPage";

const ROWS = [loginRow("Gantry"), loginRow("Lumen", { user_name: "maud" })];

function page(found: typeof ROWS, heads: string[] = []): Schema["LoginRowsOut"] {
  const none = { kinds: [], in_group: false, place: null, site: "", site_count: 0 };
  const lines: Schema["LoginListLine"][] = [
    ...heads.map((site) => ({ ...none, login: null, site, site_count: 2 })),
    ...found.map((login, place) => ({ ...none, login, place, kinds: ["weak" as const] })),
  ];
  return {
    lines_total: lines.length,
    found: found.length,
    logins_count: 2,
    damaged_count: 0,
    folders: { "": 1, Stage: 1 },
    rows: lines,
  };
}

const FRESH = {
  "POST /logins/rows": (body: unknown) => {
    const { search } = body as { search: string };
    return page(
      ROWS.filter((row) => `${row.title} ${row.user_name}`.includes(search)),
      search ? [] : ["gantry.example"],
    );
  },
};

beforeEach(forgetRemembered);

test("a login is found as one types, and opened by Enter; what was sought is there again", async () => {
  const calls = server(FRESH);
  const once = () => mount(<LoginsPage />, "/logins", "/logins");
  once();
  await waitFor(() => expect(screen.getByText("Gantry")).toBeTruthy());
  const field = screen.getByRole("textbox", { name: "Find as you type" });
  fireEvent.change(field, { target: { value: "maud" } });
  await waitFor(() => expect(screen.queryByText("Gantry")).toBeNull());
  fireEvent.keyDown(field, { key: "Enter" });
  expect(screen.getByTestId("where").textContent).toBe(`/logins/${loginRow("Lumen").login_id}`);
  expect(calls.some((call) => call.route.includes("maud"))).toBe(false);
});

test("the mouse chooses a row, and keys then act on it; a refusal is said", async () => {
  const calls = server({
    ...FRESH,
    [`POST /logins/${loginRow("Lumen").login_id}/secret`]: new Refusal(404, "nothing_held"),
  });
  mount(<LoginsPage />, "/logins", "/logins");
  fireEvent.click((await screen.findByText("Lumen")).closest('[role="row"]') as Element);
  fireEvent.keyDown(document.body, { key: "y" });
  await screen.findByRole("alert");
  expect(calls.at(-1)?.route).toContain(loginRow("Lumen").login_id);
  fireEvent.keyDown(document.body, { key: "n" });
  expect(screen.getByTestId("where").textContent).toBe("/logins/new");
});

test("keys go from login to login, over the heads of sites; folders are the server's", async () => {
  const calls = server(FRESH);
  mount(<LoginsPage />, "/logins", "/logins");
  await screen.findByText("gantry.example · 2 logins");
  const current = () => screen.getAllByRole("row", { selected: true })[0]?.textContent;
  expect(current()).toContain("Gantry");
  fireEvent.keyDown(document.body, { key: "End" });
  expect(current()).toContain("Lumen");
  fireEvent.keyDown(document.body, { key: "Home" });
  expect(current()).toContain("Gantry");
  fireEvent.click(screen.getByRole("radio", { name: /^Stage 1/ }));
  await waitFor(() =>
    expect(calls.map((c) => c.body)).toContainEqual(expect.objectContaining({ folder: "Stage" })),
  );
});
