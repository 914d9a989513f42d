import { fireEvent, screen, waitFor } from "@testing-library/react";
import { expect, test, vi } from "vitest";
import { loginRow, mount, Refusal, server } from "../../test/mounted";
import { CommandBox } from "./CommandBox";

const LIST = { logins: [loginRow("Gantry"), loginRow("Lumen")], damaged: [] };

function opened(onLock = () => {}) {
  const onClose = vi.fn();
  mount(<CommandBox onClose={onClose} onLock={onLock} />);
  return { onClose, field: screen.getByRole("combobox") };
}

test("it has the focus at once, and Enter opens what was found", async () => {
  server({ "GET /logins": LIST });
  const { onClose, field } = opened();
  expect(document.activeElement).toBe(field);
  fireEvent.change(field, { target: { value: "lum" } });
  const option = await screen.findByRole("option", { name: /Lumen/ });
  expect(field.getAttribute("aria-activedescendant")).toBe(option.id);
  fireEvent.keyDown(field, { key: "Enter" });
  expect(onClose).toHaveBeenCalledOnce();
  expect(screen.getByTestId("where").textContent).toBe(`/logins/${loginRow("Lumen").login_id}`);
});

test("arrows move within the lines and not beyond, and the mouse does the same", async () => {
  server({ "GET /logins": LIST });
  const onLock = vi.fn();
  const { field } = opened(onLock);
  fireEvent.change(field, { target: { value: "lock the" } });
  await waitFor(() => expect(screen.getAllByRole("option")).toHaveLength(1));
  fireEvent.keyDown(field, { key: "ArrowDown" });
  fireEvent.keyDown(field, { key: "ArrowUp" });
  expect(screen.getByRole("option").getAttribute("aria-selected")).toBe("true");
  fireEvent.click(screen.getByRole("option"));
  expect(onLock).toHaveBeenCalledOnce();
});

test("where logins cannot be had, views still can", async () => {
  server({ "GET /logins": new Refusal(500, "unexpected") });
  const { field } = opened();
  fireEvent.change(field, { target: { value: "report" } });
  fireEvent.keyDown(field, { key: "Enter" });
  expect(screen.getByTestId("where").textContent).toBe("/report");
  expect(screen.queryByText("Nothing of that name.")).toBeNull();
});

test("what is nowhere is said to be so", async () => {
  server({ "GET /logins": LIST });
  const { field, onClose } = opened();
  fireEvent.change(field, { target: { value: "zzz" } });
  await screen.findByText("Nothing of that name.");
  fireEvent.keyDown(field, { key: "Enter" });
  expect(onClose).not.toHaveBeenCalled();
});
