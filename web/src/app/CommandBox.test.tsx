import { fireEvent, screen, waitFor } from "@testing-library/react";
import { expect, test, vi } from "vitest";
import { loginRow, mount, Refusal, server } from "../../test/mounted";
import { CommandBox } from "./CommandBox";

const FOUND = (body: unknown) => {
  const { typed } = body as { typed: string };
  const all = [loginRow("Gantry"), loginRow("Lumen")];
  return all.filter((one) => one.title.toLowerCase().includes(typed.toLowerCase()));
};

function opened(onLock = () => {}) {
  const onClose = vi.fn();
  mount(<CommandBox onClose={onClose} onLock={onLock} />);
  return { onClose, field: screen.getByRole("combobox") };
}

test("it has the focus at once, and Enter opens what was found", async () => {
  server({ "POST /logins/find": FOUND });
  const { onClose, field } = opened();
  expect(document.activeElement).toBe(field);
  fireEvent.change(field, { target: { value: "lum" } });
  const option = await screen.findByRole("option", { name: /Lumen/ });
  expect(field.getAttribute("aria-activedescendant")).toBe(option.id);
  fireEvent.keyDown(field, { key: "Enter" });
  await waitFor(() => expect(onClose).toHaveBeenCalledOnce());
  expect(screen.getByTestId("where").textContent).toBe(`/logins/${loginRow("Lumen").login_id}`);
});

test("Enter goes to what was typed, and not to what was found before it", async () => {
  server({ "POST /logins/find": FOUND });
  const { field } = opened();
  fireEvent.change(field, { target: { value: "gan" } });
  await screen.findByRole("option", { name: /Gantry/ });
  fireEvent.change(field, { target: { value: "lumen" } });
  fireEvent.keyDown(field, { key: "Enter" });
  const lumen = `/logins/${loginRow("Lumen").login_id}`;
  await waitFor(() => expect(screen.getByTestId("where").textContent).toBe(lumen));
});

test("arrows move within the lines and not beyond, and the mouse does the same", async () => {
  server({ "POST /logins/find": FOUND });
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
  server({ "POST /logins/find": new Refusal(500, "unexpected") });
  const { field } = opened();
  fireEvent.change(field, { target: { value: "report" } });
  fireEvent.keyDown(field, { key: "Enter" });
  await waitFor(() => expect(screen.getByTestId("where").textContent).toBe("/report"));
  expect(screen.queryByText("Nothing of that name.")).toBeNull();
});

test("what is nowhere is said to be so", async () => {
  server({ "POST /logins/find": FOUND });
  const { field, onClose } = opened();
  fireEvent.change(field, { target: { value: "zzz" } });
  await screen.findByText("Nothing of that name.");
  fireEvent.keyDown(field, { key: "Enter" });
  expect(onClose).not.toHaveBeenCalled();
});

test("a pasted address says whose it is and opens that login", async () => {
  const login = { login_id: loginRow("Lumen").login_id, title: "Lumen", user_name: "ilse" };
  const seen = { host: "lumen.example", domain: "lumen.example", is_kept_out: false };
  const own = { ...seen, logins: [login], resembles: [] };
  server({ "POST /logins/find": FOUND, "POST /addresses": own });
  const { field, onClose } = opened();
  fireEvent.change(field, { target: { value: "https://www.lumen.example/in?x=1" } });
  const option = await screen.findByRole("option", { name: /Lumen.*the site of lumen\.example/ });
  expect(field.getAttribute("aria-activedescendant")).toBe(option.id);
  fireEvent.keyDown(field, { key: "Enter" });
  await waitFor(() => expect(onClose).toHaveBeenCalledOnce());
  expect(screen.getByTestId("where").textContent).toBe(`/logins/${login.login_id}`);
});

test("an address that is only like a login's is never said to be its site", async () => {
  const login = { login_id: loginRow("Lumen").login_id, title: "Lumen", user_name: "ilse" };
  const resembles = [{ domain: "lumen.example", how: "look_alike", logins: [login] }];
  const seen = { host: "1umen.example", domain: "1umen.example", is_kept_out: false };
  server({ "POST /logins/find": FOUND, "POST /addresses": { ...seen, logins: [], resembles } });
  const { field } = opened();
  fireEvent.change(field, { target: { value: "1umen.example" } });
  await screen.findByRole("option", { name: /Not Lumen.*letters that look alike/ });
});

test("an address of nobody says so", async () => {
  const seen = { host: "odd.example", domain: "odd.example", is_kept_out: false };
  server({ "POST /logins/find": FOUND, "POST /addresses": { ...seen, logins: [], resembles: [] } });
  const { field } = opened();
  fireEvent.change(field, { target: { value: "odd.example" } });
  await screen.findByText("No login of yours is at odd.example.");
});
