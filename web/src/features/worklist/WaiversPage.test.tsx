import { fireEvent, screen, waitFor } from "@testing-library/react";
import { expect, test } from "vitest";
import { mount, Refusal, server } from "../../../test/mounted";
import WaiversPage from "./WaiversPage";

const GIVEN = {
  waiver_id: "d".repeat(32),
  login_id: "a".repeat(32),
  title: "Gantry",
  kind: "weak",
  reason: "covered",
  note: "over the cable",
  evidence: "Word and year",
  given_at: "2026-11-20T10:00:00Z",
  until_on: null,
  lifted_at: null,
  holds: true,
  found_now: "accepted",
};

async function chosen(): Promise<void> {
  fireEvent.click(await screen.findByRole("checkbox", { name: "Choose Gantry" }));
  fireEvent.click(screen.getByRole("button", { name: "Take back 1 finding" }));
}

test("a waiver is taken back, and stands among the earlier ones", async () => {
  let given = [GIVEN];
  const calls = server({
    "GET /waivers": () => given,
    "POST /waivers/lift": () => {
      given = [{ ...GIVEN, holds: false, lifted_at: "2026-11-21T10:00:00Z" }] as never;
      return given;
    },
  });
  mount(<WaiversPage />);
  await chosen();
  await screen.findByRole("heading", { name: "Earlier ones" });
  const lift = calls.find((c) => c.route === "POST /waivers/lift");
  expect(lift?.body).toEqual({ waiver_ids: [GIVEN.waiver_id] });
});

test("one that cannot be taken back stays, and is said to", async () => {
  const changed = { ...GIVEN, waiver_id: "e".repeat(32), title: "Lumen", found_now: "to_do" };
  const given = [GIVEN, changed];
  server({ "GET /waivers": given, "POST /waivers/lift": new Refusal(507, "disk_full") });
  mount(<WaiversPage />);
  await chosen();
  expect((await screen.findByRole("alert")).textContent).toMatch(/disk/i);
  await waitFor(() => expect(screen.getAllByText("over the cable")).toHaveLength(2));
  expect(screen.getAllByText("found again on other grounds: on the worklist")).toHaveLength(1);
});
