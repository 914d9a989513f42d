import { useEffect } from "react";
import { FURTHER, VIEWS } from "./commands";

const OTHERS: [RegExp, string][] = [
  [/^\/logins\/new$/, "New login"],
  [/^\/logins\/[^/]+\/edit$/, "Edit a login"],
  [/^\/logins\/[^/]+\/sign-in$/, "Sign in"],
  [/^\/logins\/[^/]+$/, "A login"],
  [/^\/rotate\/[^/]+$/, "Hand-over"],
];

/** What the window is named: the view, and never a login. */
export function titleOf(pathname: string): string {
  const view = [...VIEWS, ...FURTHER].find((one) => one.path === pathname)?.label;
  const other = OTHERS.find(([pattern]) => pattern.test(pathname))?.[1];
  const name = view ?? other;
  return name ? `${name} · New Knot` : "New Knot";
}

/** The window is named by its view while the vault is open. */
export function useTitle(pathname: string): void {
  useEffect(() => {
    document.title = titleOf(pathname);
    return () => {
      document.title = "New Knot";
    };
  }, [pathname]);
}
