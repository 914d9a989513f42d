import { fireEvent, screen, waitFor } from "@testing-library/react";
import { expect, test } from "vitest";
import type { Schema } from "../api/client";
import { mount, server } from "../../test/mounted";
import { SessionWarnings } from "./SessionWarnings";

const SESSION: Schema["SessionState"] = {
  seconds_left: 600,
  lock_after_s: 600,
  clipboard_clear_s: 30,
  reveal_allowed: true,
  is_older_copy: false,
  damaged: [],
  mended: [],
  read_count: 9,
  record_count: 9,
  clock_leap: null,
  place_doubts: [],
};

test("a vault that is whole says nothing", () => {
  mount(<SessionWarnings session={SESSION} />);
  expect(screen.queryByRole("alert")).toBeNull();
  expect(screen.queryByRole("status")).toBeNull();
});

test("an older copy is gone on with only by the person's answer", async () => {
  const calls = server({ "POST /vault/older-copy-accepted": null });
  mount(<SessionWarnings session={{ ...SESSION, is_older_copy: true }} />);
  expect(screen.getByRole("alert").textContent).toContain("older than the one last seen");
  expect(calls).toEqual([]);
  fireEvent.click(screen.getByRole("button", { name: "Go on with this copy" }));
  await waitFor(() => expect(calls).toHaveLength(1));
});

test("damage is counted and named, a mended key slot is told", () => {
  const damaged = Array.from({ length: 8 }, (_, i) => `login ${i}`);
  mount(<SessionWarnings session={{ ...SESSION, damaged, mended: ["passphrase"] }} />);
  expect(screen.getByRole("alert").textContent).toContain("8 records");
  expect(screen.getByRole("alert").textContent).toContain("login 5 …");
  expect(screen.getByRole("status").textContent).toContain("(passphrase)");
});

test("what nothing brings back is let go of once it is asked, and what became of it is said", async () => {
  const became = [
    { named: "login 0", became: "new_card" },
    { named: "rotation 1", became: "loose_end" },
  ];
  const calls = server({ "POST /vault/go-on-without-lost": became });
  mount(<SessionWarnings session={{ ...SESSION, damaged: ["login 0", "rotation 1"] }} />);
  fireEvent.click(screen.getByRole("button", { name: "Go on without them…" }));
  expect(screen.getByRole("dialog").textContent).toContain("cannot be read of 2 records");
  expect(calls).toEqual([]);
  fireEvent.click(screen.getByRole("button", { name: "Go on without it" }));
  const said = await screen.findByText("Let go of.");
  expect(said.parentElement?.textContent).toContain("login 0: what can be read of its secrets and");
  expect(said.parentElement?.textContent).toContain("rotation 1: its secrets are among");
  fireEvent.click(screen.getByRole("button", { name: "Close" }));
  expect(screen.queryByText("Let go of.")).toBeNull();
});

test("a clock that leapt is said with both its times", () => {
  const clock_leap = { before: "2026-11-20T10:00:00Z", after: "2031-01-05T10:00:00Z" };
  mount(<SessionWarnings session={{ ...SESSION, clock_leap }} />);
  expect(screen.getByRole("status").textContent).toMatch(/leapt from .*2026.* to .*2031/);
});

test("a place that others may write to is said", () => {
  mount(<SessionWarnings session={{ ...SESSION, place_doubts: ["folder_shared"] }} />);
  expect(screen.getByRole("status").textContent).toContain("may write to the vault's folder");
});
