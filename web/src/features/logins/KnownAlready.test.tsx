import { fireEvent, screen } from "@testing-library/react";
import { expect, test, vi } from "vitest";
import { loginRow, mount } from "../../../test/mounted";
import { KnownAlready } from "./KnownAlready";

const LOGINS = [loginRow("Gantry"), loginRow("Slate", { user_name: "payroll" })];
const NONE = { title: "", user_name: "", address: "" };

function shown(typed: Partial<typeof NONE>) {
  const onAddress = vi.fn();
  const onUserName = vi.fn();
  mount(
    <KnownAlready {...{ onAddress, onUserName }} typed={{ ...NONE, ...typed }} logins={LOGINS} />,
  );
  return { onAddress, onUserName };
}

test("a login that is here is said while it is typed, with the way to it", () => {
  shown({ title: "gantry ", user_name: "Ilse" });
  expect(screen.getByRole("status").textContent).toMatch(/Gantry with the user name ilse is here/);
  expect(screen.getByRole("link", { name: "open that one" }).getAttribute("href")).toMatch(
    /gantry/,
  );
});

test("the address and the user names of a known title are offered", () => {
  const { onAddress, onUserName } = shown({ title: "Slate" });
  fireEvent.click(screen.getByRole("button", { name: /take the address/ }));
  fireEvent.click(screen.getByRole("button", { name: "take the user name payroll" }));
  expect(onAddress).toHaveBeenCalledWith("https://slate.example");
  expect(onUserName).toHaveBeenCalledWith("payroll");
  expect(screen.queryByText(/is here already/)).toBeNull();
});

test.each([{ title: "Other" }, { address: "https://gantry.example.org" }, {}])(
  "of what is not known nothing is said: %o",
  (typed) => {
    shown(typed);
    expect(screen.queryByRole("status")).toBeNull();
  },
);

test("another address of the same host is the same site", () => {
  shown({ address: "https://gantry.example/rent", user_name: "ilse" });
  expect(screen.getByText(/is here already/)).toBeTruthy();
});
