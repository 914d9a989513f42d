import { fireEvent, screen, waitFor } from "@testing-library/react";
import { expect, test } from "vitest";
import { mount, server } from "../../../test/mounted";
import { FirstHour } from "./FirstHour";

const STEPS = {
  has_logins: true,
  has_corpus: false,
  has_recovery_sheet: false,
  has_backup_place: true,
  is_checked: false,
  is_over: false,
};

test("each step stands with its act, or as done, and the list is dismissed", async () => {
  let steps = STEPS;
  const end = () => {
    steps = { ...STEPS, is_over: true };
    return null;
  };
  server({ "GET /first-hour": () => steps, "POST /first-hour/end": end });
  mount(<FirstHour />);
  const items = await screen.findAllByRole("listitem");
  expect(items.map((one) => /: done/.test(one.textContent ?? ""))).toEqual([
    true,
    false,
    false,
    true,
    false,
  ]);
  expect(screen.getByRole("link", { name: "make one, on paper" }).getAttribute("href")).toBe(
    "/carry?part=way-back-in",
  );
  fireEvent.click(screen.getByRole("button", { name: "dismiss this list" }));
  await waitFor(() => expect(screen.queryByRole("listitem")).toBeNull());
});

test("beside a worklist only what is left is said", async () => {
  server({ "GET /first-hour": { ...STEPS, is_checked: true } });
  mount(<FirstHour inALine />);
  const line = await screen.findByRole("note", { name: "First hour" });
  expect(line.textContent).toMatch(/a recovery sheet .*; a breach corpus/);
  expect(line.textContent).not.toMatch(/backups/);
});
