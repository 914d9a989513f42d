import { expect, test } from "vitest";
import { titleOf } from "./titles";

test("a window is named by its view, and by nothing of a login", () => {
  expect(titleOf("/")).toBe("Worklist · New Knot");
  expect(titleOf("/logins/0123abcd")).toBe("A login · New Knot");
  expect(titleOf("/logins/0123abcd/edit")).toBe("Edit a login · New Knot");
  expect(titleOf("/logins/bin")).toBe("Bin · New Knot");
  expect(titleOf("/nowhere")).toBe("New Knot");
});
