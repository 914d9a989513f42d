import { fireEvent, screen, waitFor } from "@testing-library/react";
import { expect, test } from "vitest";
import type { Schema } from "../../api/client";
import { mount, Refusal, server } from "../../../test/mounted";
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
  fireEvent.click(await screen.findByRole("button", { name: "Let New Knot try up to 9 more" }));
  await waitFor(() => expect(calls).toHaveLength(2));
  expect(calls.map((call) => call.body)).toEqual([
    { refused: [], at_most: 9 },
    { refused: tried, at_most: 9 },
  ]);
  expect(screen.queryByRole("status")).toBeNull();
});

test("a site that minds is a problem, and nothing is said to be found", async () => {
  const data = { reason: "asks to wait, or has locked the account" };
  server({ "POST /rotations/r1/way-on/drive": new Refusal(502, "outside_failed", data) });
  mount(<WayOn rotation={ROTATION} driven />);
  fireEvent.click(screen.getByRole("button", { name: "Let New Knot try them" }));
  await screen.findByRole("alert");
  expect(screen.queryByRole("status")).toBeNull();
});
