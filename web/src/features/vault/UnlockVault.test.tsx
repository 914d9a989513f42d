import { fireEvent, screen, waitFor } from "@testing-library/react";
import { expect, test, vi } from "vitest";
import { mount, Refusal, server } from "../../../test/mounted";
import { UnlockVault } from "./UnlockVault";

function typed(text: string): void {
  fireEvent.input(screen.getByLabelText("Vault passphrase"), { target: { value: text } });
  fireEvent.submit(screen.getByLabelText("Vault passphrase"));
}

test("the passphrase opens the vault and is not kept in the page", async () => {
  const entered = vi.fn();
  server({ "POST /vault/unlock": { token: "half", is_older_copy: false, damaged_count: 0 } });
  mount(<UnlockVault path="/data/own.vault" onEntered={entered} />);
  typed("seven lamps over wet gravel");
  await waitFor(() => expect(entered).toHaveBeenCalledWith("half"));
  expect(document.body.innerHTML).not.toContain("wet gravel");
});

test.each([
  [new Refusal(403, "wrong_passphrase"), "not the vault's passphrase"],
  [new Refusal(429, "too_many_guesses", { retry_after_s: 30 }), "30"],
  [new Refusal(424, "vault_damaged", { part: "its head" }), "its head"],
])("a refusal is said in a sentence", async (refusal, says) => {
  server({ "POST /vault/unlock": refusal });
  mount(<UnlockVault path="/data/own.vault" onEntered={() => {}} />);
  typed("something else");
  expect((await screen.findByRole("alert")).textContent).toContain(says);
});
