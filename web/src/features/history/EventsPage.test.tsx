import { fireEvent, screen, waitFor } from "@testing-library/react";
import { expect, test } from "vitest";
import { mount, Refusal, server } from "../../../test/mounted";
import EventsPage from "./EventsPage";

const EVENTS = ["Gantry", "Lumen"].map((title, i) => ({
  at: `2026-11-2${i}T10:00:00Z`,
  kind: "rotation",
  login_id: "a".repeat(32),
  title,
  says: `new secret for ${title}`,
}));

test("events are found by their words", async () => {
  server({ "GET /events": EVENTS });
  mount(<EventsPage />);
  await screen.findByText("2 events");
  const field = screen.getByRole("textbox", { name: "Find in the events" });
  fireEvent.change(field, { target: { value: "lumen" } });
  await waitFor(() => expect(screen.getByText("1 event")).toBeTruthy());
});

test("a list that cannot be had is said to be so", async () => {
  server({ "GET /events": new Refusal(424, "record_damaged") });
  mount(<EventsPage />);
  expect((await screen.findByRole("alert")).textContent).toContain("not what was written");
});
