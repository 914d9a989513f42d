import { fireEvent, screen, waitFor } from "@testing-library/react";
import { expect, test } from "vitest";
import type { Schema } from "../../api/client";
import { mount, Refusal, server } from "../../../test/mounted";
import { DrivePanel } from "./DrivePanel";
import { WayOn } from "./WayOn";

const ROTATION = {
  rotation_id: "r1",
  login_id: "l1",
  title: "Gantry",
  state: "unsure",
} as Schema["RotationOut"];
const next = (which: Schema["Which"], says: string) => ({
  trial: { which, characters: 0, after: 0 },
  refused: [],
  says,
  found: "",
  steps: [],
  rotation: ROTATION,
});

test("each answer leads to the next trial, and what opened the site is said", async () => {
  let asked = 0;
  const calls = server({
    "POST /rotations/r1/way-on": () => {
      asked += 1;
      if (asked === 1) return next("new", "the new secret");
      if (asked === 2) return next("current", "the old secret");
      const rotation = { ...ROTATION, state: "refused" };
      return { trial: null, says: "", found: "the old secret", steps: [], refused: [], rotation };
    },
  });
  mount(<WayOn rotation={ROTATION} driven={false} />);
  expect(screen.queryByRole("button", { name: "Let New Knot try them" })).toBeNull();
  fireEvent.click(screen.getByRole("button", { name: "Try them by hand" }));
  await screen.findByText("the new secret");
  fireEvent.click(screen.getByRole("button", { name: "It does not" }));
  await screen.findByText("the old secret");
  fireEvent.click(screen.getByRole("button", { name: "It opens the site" }));
  await waitFor(() => expect(screen.getByRole("status").textContent).toContain("It stays current"));
  const refused = [{ which: "new", characters: 0, after: 0 }];
  expect(calls[2]?.body).toEqual({
    refused,
    opened: { which: "current", characters: 0, after: 0 },
  });
});

test("New Knot tries nine at a time, and goes on where it was", async () => {
  const tried = [{ which: "new" as const, characters: 0, after: 0 }];
  const calls = server({
    "POST /rotations/r1/way-on/drive": () => ({
      ...next("end_of_new", "the last 9 characters of the new secret"),
      refused: tried,
      steps: ["the new secret does not open it"],
    }),
  });
  mount(<WayOn rotation={ROTATION} driven />);
  fireEvent.click(screen.getByRole("button", { name: "Let New Knot try them" }));
  fireEvent.click(await screen.findByRole("button", { name: "Let New Knot try up to 9" }));
  await waitFor(() => expect(calls).toHaveLength(2));
  expect(calls.map((call) => call.body)).toEqual([
    { refused: [], at_most: 9 },
    { refused: tried, at_most: 9 },
  ]);
  expect(screen.queryByRole("status")).toBeNull();
});

test("what is tried can be stopped, and its steps are shown once, as they come", async () => {
  let stop = () => {};
  const stopped = new Promise<void>((resolve) => (stop = resolve));
  server({
    "GET /rotations/r1/drive": () => ({
      allowed: false,
      plan: [],
      steps: ["the new secret does not open it"],
      state: "unsure",
    }),
    "POST /rotations/r1/drive/stop": () => {
      stop();
      return null;
    },
    "POST /rotations/r1/way-on/drive": async () => {
      await stopped;
      return new Refusal(502, "outside_failed", { reason: "was left because you stopped it" });
    },
  });
  mount(
    <>
      <WayOn rotation={ROTATION} driven />
      <DrivePanel rotation={ROTATION} driven />
    </>,
  );
  await screen.findByRole("heading", { name: "What New Knot did" });
  fireEvent.click(screen.getByRole("button", { name: "Let New Knot try them" }));
  fireEvent.click(await screen.findByRole("button", { name: "Stop" }));
  await screen.findByText(/because you stopped it/);
  expect(screen.getAllByText("the new secret does not open it")).toHaveLength(1);
});

test("a site that minds is a problem, and nothing is said to be found", async () => {
  const data = { reason: "asks to wait, or has locked the account" };
  server({ "POST /rotations/r1/way-on/drive": new Refusal(502, "outside_failed", data) });
  mount(<WayOn rotation={ROTATION} driven />);
  fireEvent.click(screen.getByRole("button", { name: "Let New Knot try them" }));
  await screen.findByRole("alert");
  expect(screen.queryByRole("status")).toBeNull();
});
