import { fireEvent, screen, waitFor } from "@testing-library/react";
import { expect, test, vi } from "vitest";
import { mount, Refusal, server } from "../../../test/mounted";
import { LooseEnds } from "./LooseEnds";

const END = {
  loose_end_id: "c".repeat(32),
  handed_out_at: "2026-11-20T10:00:00Z",
  address: "lumen.example",
  length: 20,
};

test("a loose end is copied by a call of its own, and dismissed", async () => {
  const put = vi.fn(async () => {});
  vi.stubGlobal("navigator", { ...window.navigator, clipboard: { writeText: put } });
  let ends = [END];
  const calls = server({
    "GET /loose-ends": () => ends,
    [`POST /loose-ends/${END.loose_end_id}/secret`]: { secret: "cue-to-cue-19" },
    [`DELETE /loose-ends/${END.loose_end_id}`]: () => {
      ends = [];
      return null;
    },
  });
  mount(<LooseEnds onPlace={() => {}} />);
  await screen.findByText(/20 characters/);
  expect(document.body.textContent).not.toContain("cue-to-cue");
  fireEvent.click(screen.getByRole("button", { name: "copy" }));
  await waitFor(() => expect(put).toHaveBeenCalledWith("cue-to-cue-19"));
  const asked = () => calls.filter((c) => c.route === "GET /loose-ends").length;
  expect(asked()).toBe(1);
  fireEvent.click(screen.getByRole("button", { name: "dismiss" }));
  fireEvent.click(await screen.findByRole("button", { name: "Let it go" }));
  await waitFor(() => expect(asked()).toBe(2));
});

test("one that is gone already is said to be so", async () => {
  server({
    "GET /loose-ends": [END],
    [`POST /loose-ends/${END.loose_end_id}/secret`]: new Refusal(404, "record_missing"),
  });
  mount(<LooseEnds onPlace={() => {}} />);
  fireEvent.click(await screen.findByRole("button", { name: "copy" }));
  await screen.findByRole("alert");
});
