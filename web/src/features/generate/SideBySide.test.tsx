import { render, screen } from "@testing-library/react";
import { expect, test } from "vitest";
import { server } from "../../../test/mounted";
import type { WordsShape } from "../../domain/wish";
import { SideBySide } from "./SideBySide";

const side = (bits: number) => [
  {
    kind: "words",
    says: `worth ${bits}`,
    draw: { draw_id: "d", entropy_bits: bits, secret: "x" },
    length: 1,
    key_presses: 1,
    phone_taps: 1,
  },
];

test("what stands there is what its line says, and an answer that comes late does not replace a newer", async () => {
  const waits: Record<number, (sides: unknown) => void> = {};
  server({
    "POST /draws/side-by-side": (body: unknown) =>
      new Promise((done) => {
        waits[(body as { bits: number }).bits] = done;
      }),
  });
  const shape = {} as WordsShape;
  const one = (bits: number) => (
    <SideBySide bits={bits} policy={undefined} shape={shape} onTake={() => {}} />
  );
  const { rerender } = render(one(77));
  await expect.poll(() => waits[77]).toBeDefined();
  waits[77]!(side(77));
  await screen.findByText("worth 77");
  rerender(one(63));
  screen.getByText(/^At least 77 bits/);
  rerender(one(40));
  await expect.poll(() => waits[40]).toBeDefined();
  waits[40]!(side(40));
  await screen.findByText("worth 40");
  waits[63]!(side(63));
  await new Promise((done) => setTimeout(done));
  screen.getByText(/^At least 40 bits/);
  expect(screen.queryByText("worth 63")).toBeNull();
});
