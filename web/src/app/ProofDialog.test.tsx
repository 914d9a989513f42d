import { act, fireEvent, render, screen, waitFor } from "@testing-library/react";
import { useLayoutEffect } from "react";
import { expect, test, vi } from "vitest";
import { ProofDialog, useProofQueue, type ProofQueue } from "./ProofDialog";

const CALL = { method: "POST", path: "/api/backups", body_sha256: "" };

let queue: ProofQueue;

function Proofs() {
  const own = useProofQueue();
  useLayoutEffect(() => {
    queue = own;
  });
  return <ProofDialog queue={own} />;
}

test("two calls that need a proof at once are both answered, in order", async () => {
  let given = 0;
  const asked = vi.fn<typeof fetch>(async () => {
    given += 1;
    return new Response(JSON.stringify({ proof: `proof ${given}` }), { status: 200 });
  });
  vi.stubGlobal("fetch", asked);
  render(<Proofs />);
  let first: Promise<string | null> = Promise.resolve(null);
  let second: Promise<string | null> = Promise.resolve(null);
  act(() => {
    first = queue.ask("copy", CALL);
    second = queue.ask("delete", CALL);
  });
  for (const says of ["a secret is copied", "something is deleted"]) {
    await waitFor(() => expect(screen.getByText(new RegExp(says))).toBeTruthy());
    fireEvent.input(screen.getByLabelText("Vault passphrase"), { target: { value: "seven" } });
    fireEvent.click(screen.getByRole("button", { name: "Go on" }));
  }
  expect(await first).toBe("proof 1");
  expect(await second).toBe("proof 2");
});

test("one that is left is refused, and the next is still asked", async () => {
  render(<Proofs />);
  let first: Promise<string | null> = Promise.resolve("");
  act(() => {
    first = queue.ask("copy", CALL);
    void queue.ask("export", CALL);
  });
  fireEvent.click(await screen.findByRole("button", { name: "Cancel" }));
  expect(await first).toBeNull();
  await waitFor(() => expect(screen.getByText(/a copy of the vault is made/)).toBeTruthy());
});
