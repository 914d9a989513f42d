import { fireEvent, screen, waitFor } from "@testing-library/react";
import { expect, test, vi } from "vitest";
import type { Schema } from "../../api/client";
import { mount, Refusal, server } from "../../../test/mounted";
import { CreateVault } from "./CreateVault";

const NEW: Schema["VaultState"] = {
  state: "new",
  path: "/data/own.vault",
  knew_a_vault: false,
  copies: [],
  is_placed: false,
};
const WORDS = { words: ["lamp", "truss"], entropy_bits: 77.5 };

function shown(state: Schema["VaultState"], answers: Record<string, unknown>) {
  const onPlaced = vi.fn();
  const onEntered = vi.fn();
  const calls = server({ "GET /vault/words": WORDS, ...answers });
  mount(<CreateVault state={state} onEntered={onEntered} onPlaced={onPlaced} />);
  return { calls, onPlaced, onEntered };
}

test("a machine that knew a vault says so before it offers a new one, and opens a copy", async () => {
  const name = "newknot-1a2b3c4d-20261120-100000.vault";
  const copies = [{ name, made_at: "2026-11-20T10:00:00Z" }];
  const { calls, onPlaced } = shown(
    { ...NEW, knew_a_vault: true, copies },
    { "POST /vault/place-beside": { kind: "backup" } },
  );
  expect(screen.getByRole("heading", { level: 1 }).textContent).toBe("No vault lies here");
  expect(screen.getByRole("alert").textContent).toContain("/data/own.vault");
  fireEvent.click(screen.getByRole("button", { name: `Open ${name}` }));
  await waitFor(() => expect(onPlaced).toHaveBeenCalled());
  expect(calls.at(-1)?.body).toEqual({ name });
});

test("a bundle is opened by its passphrase into a new vault", async () => {
  const { onEntered } = shown(NEW, {
    "POST /vault/place": { kind: "bundle" },
    "POST /vault/open-bundle": { token: "half", is_older_copy: false, damaged_count: 0 },
  });
  const file = new File(["eyJ"], "newknot.jwe");
  fireEvent.change(screen.getByLabelText("Backup or bundle to open"), {
    target: { files: [file] },
  });
  await screen.findByLabelText(/^Passphrase of newknot.jwe/);
  fireEvent.click(screen.getByRole("button", { name: /Open it$/ }));
  await waitFor(() => expect(onEntered).toHaveBeenCalledWith("half"));
});

test("what is no copy is said", async () => {
  const { onPlaced } = shown(NEW, { "POST /vault/place": new Refusal(422, "no_copy") });
  const files = [new File(["x"], "x.vault")];
  fireEvent.change(screen.getByLabelText("Backup or bundle to open"), { target: { files } });
  expect((await screen.findByRole("alert")).textContent).toContain("neither a backup");
  expect(onPlaced).not.toHaveBeenCalled();
});

test("what nothing explains is taken where chance drew it", async () => {
  const measure = {
    guess_number_log10: 12,
    least_log10: 7,
    is_bound: true,
    order_log10: 0,
    scheme_log10: 0,
    reasons: "unpatterned characters",
    falls_to: null,
    falls: [],
    segments: [],
    measured_characters: 8,
    context_was_cut: false,
    corpus_used: false,
    breached: null,
    advice: [],
    site_keeps: "",
  } satisfies Schema["MeasureOut"];
  const { calls, onEntered } = shown(NEW, {
    "POST /strength/measure": measure,
    "POST /vault/create": { token: "half", is_older_copy: false, damaged_count: 0 },
  });
  for (const name of [/^Vault passphrase/, /^The same again/])
    fireEvent.change(screen.getByLabelText(name), { target: { value: "x7Kp2mQz" } });
  const tick = await screen.findByRole("checkbox", { name: /chance drew it/ });
  const make = screen.getByRole("button", { name: "Make the vault" });
  expect(make).toHaveProperty("disabled", true);
  fireEvent.click(tick);
  expect(make).toHaveProperty("disabled", false);
  fireEvent.click(make);
  await waitFor(() => expect(onEntered).toHaveBeenCalledWith("half"));
  expect(calls.at(-1)?.body).toEqual({ passphrase: "x7Kp2mQz", drawn: true });
});
