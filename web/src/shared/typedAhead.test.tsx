import { fireEvent, render, screen } from "@testing-library/react";
import { afterEach, beforeEach, expect, test, vi } from "vitest";
import { holdKeysWhileOpening, opening, viewArrived } from "./typedAhead";
import { useKeys } from "./useKeys";

const lock = vi.fn();

function Keys() {
  useKeys({ l: lock, Enter: lock });
  return null;
}

let release: () => void;
beforeEach(() => {
  window.history.replaceState(null, "", "/");
  viewArrived("/");
  release = holdKeysWhileOpening(document);
  render(<Keys />);
});
afterEach(() => {
  release();
  lock.mockClear();
});

const type = (text: string) => {
  for (const key of text) fireEvent.keyDown(document.activeElement ?? document.body, { key });
};

test("a key answers where nothing opens", () => {
  type("l");
  expect(lock).toHaveBeenCalledTimes(1);
});

test("what is typed while a view opens lands in the field that takes the focus", () => {
  window.history.pushState(null, "", "/logins/new");
  type("lx");
  fireEvent.keyDown(document.body, { key: "Backspace" });
  type("amp");
  fireEvent.keyDown(document.body, { key: "Enter" });
  expect(lock).not.toHaveBeenCalled();
  render(<input aria-label="Title" />);
  const field = screen.getByLabelText<HTMLInputElement>("Title");
  field.focus();
  viewArrived("/logins/new");
  expect(field.value).toBe("lamp");
});

test("what is typed while a view without a field opens goes nowhere", () => {
  window.history.pushState(null, "", "/logins");
  type("l");
  viewArrived("/logins");
  expect(lock).not.toHaveBeenCalled();
  type("l");
  expect(lock).toHaveBeenCalledTimes(1);
});

test("keys are held until a call that opens something was answered", async () => {
  let answer = () => {};
  const called = opening(new Promise<void>((resolve) => (answer = resolve)));
  type("l");
  expect(lock).not.toHaveBeenCalled();
  answer();
  await called;
  type("l");
  expect(lock).toHaveBeenCalledTimes(1);
});

test("a dialogue that asks during such a call takes what is typed", async () => {
  let answer = () => {};
  const called = opening(new Promise<void>((resolve) => (answer = resolve)));
  render(
    <div role="dialog" aria-label="proof">
      <input aria-label="Vault passphrase" />
    </div>,
  );
  screen.getByRole("dialog").getClientRects = () => [{}] as unknown as DOMRectList;
  type("ab");
  const field = screen.getByLabelText<HTMLInputElement>("Vault passphrase");
  field.focus();
  expect(field.value).toBe("ab");
  const taken = !fireEvent.keyDown(field, { key: "c" });
  expect(taken).toBe(false);
  answer();
  await called;
});
