import { fireEvent, screen, waitFor } from "@testing-library/react";
import { expect, test } from "vitest";
import { mount, Refusal, server } from "../../../test/mounted";
import MeasurePage from "./MeasurePage";

const FOUND = {
  advice: [],
  breached: null,
  context_was_cut: false,
  corpus_used: false,
  falls: [],
  falls_to: "at_form",
  guess_number_log10: 4.2,
  measured_characters: 6,
  order_log10: 0,
  scheme_log10: 1.6,
  is_bound: false,
  reasons: "place and digits",
  segments: [],
  site_keeps: "",
};

async function typed(text: string): Promise<void> {
  const heading = await screen.findByRole("heading", { name: /Measure a secret/ });
  const input = heading.ownerDocument.querySelector("input") as HTMLInputElement;
  fireEvent.input(input, { target: { value: text } });
}

test("what is typed is measured, with its reasons", async () => {
  const calls = server({ "POST /strength/measure": FOUND, "GET /strength/budgets": [] });
  mount(<MeasurePage />);
  await typed("Lisbon47");
  await waitFor(() => expect(screen.getByText(/place and digits/)).toBeTruthy());
  expect(screen.getByText(/by a scheme: 10.* times fewer guesses/)).toBeTruthy();
  expect(calls.some((c) => c.route === "POST /strength/measure")).toBe(true);
});

test("a measure that fails is said to have failed", async () => {
  server({
    "POST /strength/measure": new Refusal(423, "vault_locked"),
    "GET /strength/budgets": [],
  });
  mount(<MeasurePage />);
  await typed("Lisbon47");
  await screen.findByRole("alert");
});
