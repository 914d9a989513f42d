import { fireEvent, render, screen } from "@testing-library/react";
import { createRef } from "react";
import { expect, test, vi } from "vitest";
import { SecretInput } from "./SecretInput";
import { SecretText } from "./SecretText";
import { useKeys } from "./useKeys";

test("a typed secret is not mirrored into the page", () => {
  const ref = createRef<HTMLInputElement>();
  const { container } = render(<SecretInput ref={ref} label="Vault passphrase" />);
  fireEvent.input(screen.getByLabelText("Vault passphrase"), { target: { value: "cue-19" } });
  fireEvent.click(screen.getByRole("button"));
  expect(ref.current?.value).toBe("cue-19");
  expect(ref.current?.type).toBe("text");
  expect(container.innerHTML).not.toContain("cue-19");
  expect(ref.current?.autocomplete).toBe("one-time-code");
});

test("a secret is read whole by a screen reader and marked by class", () => {
  const { container } = render(<SecretText secret="aB3_x" />);
  expect(screen.getByText("aB3_x")).toBeTruthy();
  expect(container.querySelectorAll(".group")).toHaveLength(2);
  expect(container.querySelectorAll("rect, circle, path")).toHaveLength(3);
});

function Keys({ name, act }: { name: string; act: (who: string) => void }) {
  useKeys({ r: () => act(name), Enter: () => act("enter") });
  return null;
}

test("the newest view is asked first, and no key is taken while typing", () => {
  const act = vi.fn();
  const { unmount } = render(
    <>
      <Keys name="frame" act={act} />
      <Keys name="view" act={act} />
      <input aria-label="text" />
      <button type="button">act</button>
    </>,
  );
  fireEvent.keyDown(document.body, { key: "R" });
  expect(act).toHaveBeenLastCalledWith("view");
  fireEvent.keyDown(screen.getByLabelText("text"), { key: "r" });
  fireEvent.keyDown(document.body, { key: "r", ctrlKey: true });
  fireEvent.keyDown(screen.getByRole("button"), { key: "Enter" });
  expect(act).toHaveBeenCalledTimes(1);
  unmount();
  fireEvent.keyDown(document.body, { key: "r" });
  expect(act).toHaveBeenCalledTimes(1);
});
