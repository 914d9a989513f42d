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
  trial: { which, characters: 0 },
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
      return { trial: null, says: "", found: "the old secret", steps: [], rotation };
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
  const refused = [{ which: "new", characters: 0 }];
  expect(calls[2]?.body).toEqual({ refused, opened: { which: "current", characters: 0 } });
});

test("a site that minds is a problem, and nothing is said to be found", async () => {
  const data = { reason: "asks to wait, or has locked the account" };
  server({ "POST /rotations/r1/way-on/drive": new Refusal(502, "outside_failed", data) });
  mount(<WayOn rotation={ROTATION} driven />);
  fireEvent.click(screen.getByRole("button", { name: "Let New Knot try them" }));
  await screen.findByRole("alert");
  expect(screen.queryByRole("status")).toBeNull();
});
