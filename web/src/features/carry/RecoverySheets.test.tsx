import { fireEvent, screen } from "@testing-library/react";
import { expect, test, vi } from "vitest";
import { mount } from "../../../test/mounted";
import { RecoverySheets } from "./RecoverySheets";

const WORDS = "truss batten flood wing rail cue";
const MADE = { sheets: [{ words: WORDS, qr_rows: ["10", "01"] }] };
const CLOSE = "They are on paper: close";
const button = (name: string) => screen.getByRole<HTMLButtonElement>("button", { name });

function shown() {
  const onClose = vi.fn();
  mount(<RecoverySheets made={MADE} onClose={onClose} />);
  return onClose;
}

test("neither Escape nor a click closes sheets that nobody has", () => {
  const onClose = shown();
  fireEvent.keyDown(screen.getByRole("dialog"), { key: "Escape", keyCode: 27 });
  expect(button(CLOSE).disabled).toBe(true);
  expect(screen.queryByRole("button", { name: "Close" })).toBeNull();
  expect(onClose).not.toHaveBeenCalled();
});

test("written down, two of the words are asked back", () => {
  const onClose = shown();
  for (const field of screen.getAllByRole<HTMLInputElement>("textbox")) {
    const place = Number(/\d+/.exec(field.closest("label")?.textContent ?? "")?.[0]);
    fireEvent.change(field, {
      target: { value: ` ${WORDS.split(" ")[place - 1]?.toUpperCase()}` },
    });
  }
  fireEvent.click(button(CLOSE));
  expect(onClose).toHaveBeenCalledOnce();
});

test("who wants no paper says so on purpose", () => {
  const onClose = shown();
  fireEvent.click(button("close without paper…"));
  expect(onClose).not.toHaveBeenCalled();
  fireEvent.click(button("Close without paper"));
  expect(onClose).toHaveBeenCalledOnce();
});
