import { fireEvent, screen, waitFor } from "@testing-library/react";
import { expect, test, vi } from "vitest";
import { mount, server } from "../../../test/mounted";
import { KnownAlready } from "./KnownAlready";

const NONE = { title: "", user_name: "", address: "" };
const NOTHING = { same: null, address: "", user_names: [] };
const GANTRY = {
  login_id: "gantry",
  title: "Gantry",
  user_name: "ilse",
  domain: "gantry.example",
  has_secret: true,
  rotation_id: null,
};

function shown(typed: Partial<typeof NONE>, known: object) {
  const onAddress = vi.fn();
  const onUserName = vi.fn();
  const calls = server({ "POST /logins/known": known });
  mount(<KnownAlready {...{ onAddress, onUserName }} typed={{ ...NONE, ...typed }} />);
  return { onAddress, onUserName, calls };
}

test("a login that is here is said while it is typed, with the way to it", async () => {
  shown({ title: "gantry ", user_name: "Ilse" }, { ...NOTHING, same: GANTRY });
  expect((await screen.findByRole("status")).textContent).toMatch(
    /Gantry with the user name ilse is here/,
  );
  expect(screen.getByRole("link", { name: "open that one" }).getAttribute("href")).toMatch(
    /gantry/,
  );
});

test("the address and the user names of a known title are offered", async () => {
  const known = { ...NOTHING, address: "https://slate.example", user_names: ["payroll"] };
  const { onAddress, onUserName } = shown({ title: "Slate" }, known);
  fireEvent.click(await screen.findByRole("button", { name: /take the address/ }));
  fireEvent.click(screen.getByRole("button", { name: "take the user name payroll" }));
  expect(onAddress).toHaveBeenCalledWith("https://slate.example");
  expect(onUserName).toHaveBeenCalledWith("payroll");
  expect(screen.queryByText(/is here already/)).toBeNull();
});

test("of what is not known nothing is said, and of a letter nothing is asked", async () => {
  const { calls } = shown({ title: "Other" }, NOTHING);
  await waitFor(() => expect(calls).toHaveLength(1));
  expect(screen.queryByRole("status")).toBeNull();
  const { calls: none } = shown({ title: "O" }, NOTHING);
  expect(none).toHaveLength(0);
});
