import { createHash } from "node:crypto";
import { afterEach, beforeEach, expect, test, vi } from "vitest";
import { answer, client, installHooks, lockVault, sessionToken } from "./client";
import type { Problem, ProofCall } from "./client";

const onLocked = vi.fn();
const onRenewed = vi.fn();
const askForProof = vi.fn<(act: string, call: ProofCall) => Promise<string | null>>();
const fetched = vi.fn<typeof fetch>();

function reply(status: number, body: object): Response {
  return new Response(JSON.stringify(body), {
    status,
    headers: { "content-type": "application/json" },
  });
}

function sent(call: number): Headers {
  return new Headers(fetched.mock.calls[call]?.[1]?.headers);
}

beforeEach(() => {
  vi.stubGlobal("fetch", fetched);
  installHooks({ onLocked, askForProof, onRenewed });
  sessionToken.set("half");
});
afterEach(() => vi.resetAllMocks());

test("the header half goes with every call, and failures carry code and data", async () => {
  fetched.mockResolvedValueOnce(reply(422, { code: "field_invalid", data: { field: "title" } }));
  const failed = answer(client.POST("/logins", { body: { title: "" } as never }));
  await expect(failed).rejects.toMatchObject({ code: "field_invalid", data: { field: "title" } });
  expect(sent(0).get("knot-session")).toBe("half");
});

test("where a proof is asked, the person gives it and the same call is made again", async () => {
  const body = { purpose: "copy" } as const;
  const path = { login_id: "1" };
  fetched
    .mockResolvedValueOnce(reply(403, { code: "proof_needed", data: { act: "copy" } }))
    .mockResolvedValueOnce(reply(200, { secret: "cue" }));
  askForProof.mockResolvedValueOnce("token");
  const call = () => client.POST("/logins/{login_id}/secret", { params: { path }, body });
  expect(await answer(call())).toEqual({ secret: "cue" });
  expect(askForProof).toHaveBeenCalledWith("copy", {
    method: "POST",
    path: "/api/logins/1/secret",
    body_sha256: createHash("sha256").update('{"purpose":"copy"}').digest("hex"),
  });
  expect(sent(1).get("knot-proof")).toBe("token");
  expect(fetched.mock.calls[1]?.[1]?.body).toEqual(fetched.mock.calls[0]?.[1]?.body);
});

test("a proof that is not given leaves the refusal", async () => {
  fetched.mockResolvedValueOnce(reply(403, { code: "proof_needed", data: { act: "delete" } }));
  askForProof.mockResolvedValueOnce(null);
  await expect(answer(client.DELETE("/logins/bin"))).rejects.toMatchObject({
    code: "proof_needed",
  });
  expect(fetched).toHaveBeenCalledTimes(1);
});

test.each([401, 423])("%d ends the session of this window", async (status) => {
  fetched.mockResolvedValueOnce(reply(status, { code: "vault_locked", data: {} }));
  await expect(answer(client.GET("/logins"))).rejects.toMatchObject({ code: "vault_locked" });
  expect(onLocked).toHaveBeenCalledOnce();
  expect(sessionToken.get()).toBe("");
});

test("a server that is gone is said to be so", async () => {
  fetched.mockRejectedValueOnce(new TypeError("failed"));
  const problem: Problem = await answer(client.GET("/vault")).then(
    () => Promise.reject(new Error("answered")),
    (error) => error as Problem,
  );
  expect(problem.code).toBe("unreachable");
});

test("after a call that changed something, and only then, what rests on it is asked again", async () => {
  fetched.mockResolvedValueOnce(reply(200, { secret: "cue" }));
  const path = { login_id: "1" };
  await client.POST("/logins/{login_id}/secret", { params: { path }, body: { purpose: "copy" } });
  fetched.mockResolvedValueOnce(reply(422, { code: "field_invalid", data: {} }));
  await client.POST("/logins", { body: { title: "" } as never });
  expect(onRenewed).not.toHaveBeenCalled();
  fetched.mockResolvedValueOnce(reply(201, {}));
  await client.POST("/logins", { body: { title: "Gantry" } as never });
  expect(onRenewed).toHaveBeenCalledOnce();
  expect(onRenewed.mock.calls[0]?.[0]).toContain("logins");
});

test("a vault that is being locked is asked nothing more, and what is read is let go", async () => {
  fetched.mockImplementationOnce(
    (_, init) =>
      new Promise((_done, failed) => {
        init?.signal?.addEventListener("abort", () => failed(new Error("let go")));
      }),
  );
  const reading = answer(client.GET("/logins"));
  await vi.waitFor(() => expect(fetched).toHaveBeenCalledOnce());
  let locked: (response: Response) => void = () => {};
  fetched.mockImplementationOnce(() => new Promise((done) => (locked = done)));
  const locking = lockVault();
  // Not "unreachable": a server that answers is not said to be away.
  await expect(reading).rejects.toMatchObject({ code: "vault_locked" });
  await expect(answer(client.GET("/rotations"))).rejects.toMatchObject({ code: "vault_locked" });
  expect(fetched).toHaveBeenCalledTimes(2);
  locked(new Response(null, { status: 204 }));
  await locking;
  expect(sessionToken.get()).toBe("");
  fetched.mockResolvedValueOnce(reply(200, { state: "locked" }));
  expect(await answer(client.GET("/vault"))).toEqual({ state: "locked" });
});
