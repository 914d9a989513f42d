import { readdirSync, readFileSync, statSync } from "node:fs";
import { join, relative } from "node:path";
import { expect, test } from "vitest";

const ROOT = import.meta.dirname;
const MAY_USE: Record<string, string[]> = {
  app: ["api", "domain", "shared", "features"],
  features: ["api", "domain", "shared"],
  shared: ["api", "domain"],
  api: [],
  domain: ["api"],
};

function files(folder: string): string[] {
  return readdirSync(folder).flatMap((name) => {
    const path = join(folder, name);
    return statSync(path).isDirectory() ? files(path) : /\.tsx?$/.test(name) ? [path] : [];
  });
}

const sources = files(ROOT).filter((path) => !/\.test\.|schema\.d\.ts/.test(path));

test.each(sources.map((path) => relative(ROOT, path)))("%s follows the arrow", (path) => {
  const text = readFileSync(join(ROOT, path), "utf8");
  const [part = "", feature = ""] = path.split("/");
  for (const [, spec = ""] of text.matchAll(/from "(\.[^"]+)"/g)) {
    const [to = "", other = ""] = relative(ROOT, join(ROOT, path, "..", spec)).split("/");
    if (part === to && (part !== "features" || feature === other)) continue;
    if (part === "main.tsx") continue;
    expect(MAY_USE[part], `${path} imports ${spec}`).toContain(to);
  }
  if (part === "domain") expect(text).not.toMatch(/import \{[^}]*\} from "\.\.\/api|from "react/);
  if (part !== "api") expect(text).not.toMatch(/\bfetch\(|sessionStorage|localStorage/);
  expect(text).not.toMatch(/history\.(push|replace)State|dangerouslySet/);
  // One file names the window, by a list of views: never by what one of them shows.
  if (path !== "app/titles.ts") expect(text).not.toMatch(/document\.title/);
  if (path !== "app/theme.ts") expect(text).not.toMatch(/["'` ]#[0-9a-f]{3,8}\b/i);
});

test("no modules import one another in a ring", () => {
  const needs = new Map<string, Set<string>>();
  for (const path of sources) {
    const text = readFileSync(path, "utf8");
    const found = [...text.matchAll(/from "(\.[^"]+)"|import\("(\.[^"]+)"\)/g)].map(
      ([, plain, later]) => join(path, "..", plain ?? later ?? ""),
    );
    const within = found.flatMap((one) => sources.filter((s) => s.replace(/\.tsx?$/, "") === one));
    needs.set(path, new Set(within));
  }
  for (;;) {
    const free = [...needs].filter(([, of]) => of.size === 0).map(([path]) => path);
    if (free.length === 0) break;
    for (const path of free) needs.delete(path);
    for (const of of needs.values()) for (const path of free) of.delete(path);
  }
  expect([...needs.keys()].map((path) => relative(ROOT, path))).toEqual([]);
});
