import { fireEvent, screen, waitFor } from "@testing-library/react";
import { expect, test } from "vitest";
import { mount, Refusal, server } from "../../../test/mounted";
import { BackUp } from "./BackUp";

const MADE = {
  name: "newknot-1a2b3c4d-20261120-100000.vault",
  path: "/data/backups/newknot-1a2b3c4d-20261120-100000.vault",
  size_bytes: 40960,
  made_at: "2026-11-20T10:00:00Z",
};
const SAFEGUARDS = { backup_every_h: 24, backup_problem: "", backup_problem_data: {} };

test("a backup is made, said to be read through, and listed", async () => {
  let made: (typeof MADE)[] = [];
  server({
    "GET /safeguards": SAFEGUARDS,
    "GET /backups": () => made,
    "POST /backups": () => {
      made = [MADE];
      return MADE;
    },
  });
  mount(<BackUp />);
  fireEvent.click(await screen.findByRole("button", { name: "Make a sealed backup" }));
  expect((await screen.findByRole("status")).textContent).toContain("read through");
  await waitFor(() => expect(screen.getAllByText(MADE.name, { exact: false })).not.toHaveLength(0));
});

test("one that would not give everything back names what, and what failed by schedule too", async () => {
  const data = { part: "login", title: "Gantry" };
  server({
    "GET /safeguards": {
      ...SAFEGUARDS,
      backup_problem: "backup_not_verified",
      backup_problem_data: data,
    },
    "GET /backups": [],
    "POST /backups": new Refusal(424, "backup_not_verified", data),
  });
  mount(<BackUp />);
  expect((await screen.findByRole("alert")).textContent).toContain("of Gantry, login");
  fireEvent.click(screen.getByRole("button", { name: "Make a sealed backup" }));
  await waitFor(() => expect(screen.getAllByRole("alert")).toHaveLength(2));
});
