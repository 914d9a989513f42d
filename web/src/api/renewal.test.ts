import { readFileSync } from "node:fs";
import { join } from "node:path";
import { expect, test } from "vitest";
import { queries } from "./queries";
import { renewedBy, WITHIN } from "./renewal";

const OUTSIDE = ["change-page", "mails", "notices"];

test("what asks outside, and what never changes, is asked again by no act", () => {
  const keys = Object.values(queries).map((make) => {
    const options = (make as (...of: never[]) => { queryKey: readonly unknown[] })(
      ...([{}, "x", "x"] as never[]),
    );
    return String(options.queryKey[0]);
  });
  expect(new Set([...WITHIN, ...OUTSIDE, "vault", "budgets", "dice", "draws"])).toEqual(
    new Set(keys),
  );
});

test.each([
  ["POST", "/logins/1/secret", []],
  ["POST", "/logins/1/code", []],
  ["POST", "/vault/touch", []],
  ["GET", "/logins", []],
  ["POST", "/rotations/1/former", []],
  ["POST", "/rotations/1/way-on/secret", []],
  ["PUT", "/drafts/login-new", []],
  ["POST", "/draws/words", []],
  ["POST", "/draws/1/keep", ["worklist", "waivers", "report", "loose-ends"]],
])("%s %s renews just what rests on it", (method, path, keys) => {
  expect(renewedBy(method, path)).toEqual(keys);
});

test("a change renews the lists that show it, and one that is not known renews all within", () => {
  expect(renewedBy("PUT", "/logins/1")).toEqual(expect.arrayContaining(["logins", "worklist"]));
  expect(renewedBy("POST", "/checks")).toContain("worklist");
  expect(renewedBy("POST", "/imports/1/apply")).toBe(WITHIN);
  expect(renewedBy("POST", "/backups/a/restore")).toBe(WITHIN);
  expect(renewedBy("POST", "/something/new")).toBe(WITHIN);
});

test.each([
  ["PUT", "/logins/1"],
  ["POST", "/rotations/1/accept"],
  ["POST", "/checks"],
  ["DELETE", "/waivers/1"],
  ["POST", "/loose-ends/1/place"],
  ["POST", "/notices/fetch"],
  ["POST", "/mails"],
])("%s %s renews every answer to what stands to be done", (method, path) => {
  expect(renewedBy(method, path)).toEqual(
    expect.arrayContaining(["worklist", "waivers", "report"]),
  );
});

test("every route that is named is one of the server's", () => {
  const schema = readFileSync(join(import.meta.dirname, "schema.d.ts"), "utf8");
  const routes = [...schema.matchAll(/^ {4}"(\/[^"]*)": \{/gm)].map((m) => m[1] ?? "");
  const text = readFileSync(join(import.meta.dirname, "renewal.ts"), "utf8");
  const named = [...text.matchAll(/\["[A-Z*]+ (\/[^"]+)"/g)].map((m) => m[1] ?? "");
  expect(named.length).toBeGreaterThan(40);
  for (const pattern of named) {
    const shape = pattern
      .replace(/\/\*\*$/, "(/.*)?")
      .replaceAll("/*", "/[^/]+")
      .replace("(/.[^/]+)?", "(/.*)?");
    expect(
      routes.some((route) => new RegExp(`^${shape}$`).test(route)),
      pattern,
    ).toBe(true);
  }
});
