import createClient from "openapi-fetch";
import { changesThoughFailed, renewedBy } from "./renewal";
import type { components, paths } from "./schema";

export type Schema = components["schemas"];

const TOKEN = "newknot.session";

/** The header half of the session: the one thing kept in the tab's own storage. */
export const sessionToken = {
  get: () => sessionStorage.getItem(TOKEN) ?? "",
  set: (token: string) => sessionStorage.setItem(TOKEN, token),
  clear: () => sessionStorage.removeItem(TOKEN),
};

let staying = false;

/** While the vault is sealed anew other calls are refused: that is not a lock. */
export async function staysOpen<T>(act: () => Promise<T>): Promise<T> {
  staying = true;
  try {
    return await act();
  } finally {
    staying = false;
  }
}

let locking = false;
let reading = new AbortController();

/**
 * Locks the vault and ends the session of this window. Meanwhile nothing else is asked of it, and
 * what is being read is let go; a change that is on its way is not broken off.
 */
export async function lockVault(): Promise<void> {
  const call = new Request(`${window.location.origin}/api/vault/lock`, { method: "POST" });
  try {
    const locked = send(call);
    locking = true;
    reading.abort();
    reading = new AbortController();
    const response = await locked;
    if (!response.ok) throw await problemOf(response);
  } finally {
    locking = false;
    sessionToken.clear();
  }
}

/** A failed call: the server's code and data, or `unreachable`. */
export class Problem extends Error {
  constructor(
    readonly code: string,
    readonly data: Record<string, unknown> = {},
  ) {
    super(code);
  }
}

export type ProofCall = { method: string; path: string; body_sha256: string };

type Hooks = {
  /** The vault is locked, or this window has no session. */
  onLocked: () => void;
  /** Asks for the passphrase before an act; the proof, or null, serves for that call alone. */
  askForProof: (act: string, call: ProofCall) => Promise<string | null>;
  /** A call succeeded: answers under these keys rest on what it changed. */
  onRenewed: (keys: string[]) => void;
};

const hooks: Hooks = { onLocked: () => {}, askForProof: async () => null, onRenewed: () => {} };

export function installHooks(given: Hooks): void {
  Object.assign(hooks, given);
}

async function send(request: Request): Promise<Response> {
  if (locking) throw new Problem("vault_locked");
  const signal = request.method === "GET" ? reading.signal : null;
  // Read once, so that the same call can be made again with a proof.
  const body = request.body === null ? null : await request.arrayBuffer();
  const attempt = (proof: string) => {
    const headers = new Headers(request.headers);
    const token = sessionToken.get();
    if (token) headers.set("knot-session", token);
    if (proof) headers.set("knot-proof", proof);
    return fetch(request.url, { method: request.method, headers, body, signal, cache: "no-store" });
  };
  let response: Response;
  try {
    response = await attempt("");
    if (response.status === 403) {
      const problem = await problemOf(response.clone());
      if (problem.code === "proof_needed") {
        const { pathname, search } = new URL(request.url);
        const call = {
          method: request.method,
          path: pathname + search,
          body_sha256: await sha256(body ?? new ArrayBuffer(0)),
        };
        const proof = await hooks.askForProof(String(problem.data.act), call);
        if (proof) response = await attempt(proof);
      }
    }
  } catch {
    // What the lock let go was not refused by a server that is away.
    throw new Problem(signal?.aborted ? "vault_locked" : "unreachable");
  }
  if (!staying && (response.status === 423 || response.status === 401)) {
    sessionToken.clear();
    hooks.onLocked();
  }
  const path = new URL(request.url).pathname.replace(/^\/api/, "");
  if (response.ok || changesThoughFailed(path)) {
    const keys = renewedBy(request.method, path);
    if (keys.length) hooks.onRenewed(keys);
  }
  return response;
}

async function sha256(bytes: ArrayBuffer): Promise<string> {
  const digest = new Uint8Array(await crypto.subtle.digest("SHA-256", bytes));
  return Array.from(digest, (byte) => byte.toString(16).padStart(2, "0")).join("");
}

async function problemOf(response: Response): Promise<Problem> {
  try {
    const body = (await response.json()) as { code?: string; data?: Record<string, unknown> };
    return new Problem(body.code ?? "unexpected", body.data ?? {});
  } catch {
    return new Problem("unexpected");
  }
}

export const client = createClient<paths>({
  baseUrl: `${window.location.origin}/api`,
  fetch: send,
  cache: "no-store",
});

/** The answer's data, or a thrown `Problem`. */
export async function answer<T>(
  call: Promise<{ data?: T; error?: unknown; response: Response }>,
): Promise<T> {
  const { data, error, response } = await call;
  if (response.ok) return data as T;
  const body = error as { code?: string; data?: Record<string, unknown> } | undefined;
  throw new Problem(body?.code ?? "unexpected", body?.data ?? {});
}

/** Sends a file as the raw body; never as a form, which would spool to disk. */
async function post<T>(path: string, file: Blob): Promise<T> {
  const request = new Request(`${window.location.origin}/api/${path}`, {
    method: "POST",
    body: await file.arrayBuffer(),
    headers: { "content-type": "application/octet-stream" },
  });
  const response = await send(request);
  if (!response.ok) throw await problemOf(response);
  return (await response.json()) as T;
}

async function bytes(path: string): Promise<Blob> {
  const response = await send(new Request(`${window.location.origin}/api/${path}`));
  if (!response.ok) throw await problemOf(response);
  return response.blob();
}

/** The report of what to do, as a table or a page. */
export const reportContent = (kind: "csv" | "html", wish: Schema["ReportIn"]) =>
  exportContent(`reports/${kind}`, wish);

/** A table of logins to be looked at before it is taken in. */
export const sendFile = (file: File) => post<Schema["ImportTable"]>("imports", file);

/** The QR picture that a site shows for the codes of a login. */
export const sendPicture = (login_id: string, picture: Blob) =>
  post<Schema["SecondFactorOut"]>(`logins/${login_id}/second-factor/picture`, picture);

/** A sealed bundle, to be opened and merged. */
export const sendBundle = (file: File) => post<Schema["BundleHeld"]>("bundles", file);

/** A backup or a bundle, where no vault's file is. */
export const sendCopy = (file: File) => post<Schema["PlacedOut"]>("vault/place", file);

/** A file that goes out. */
export async function exportContent(path: string, body?: object): Promise<Blob> {
  const request = new Request(`${window.location.origin}/api/${path}`, {
    method: "POST",
    body: body ? JSON.stringify(body) : null,
    headers: body ? { "content-type": "application/json" } : {},
  });
  const response = await send(request);
  if (!response.ok) throw await problemOf(response);
  return response.blob();
}

/** What the QR codes of a picture say: the words of recovery sheets. */
export const readPicture = (picture: Blob) =>
  post<Schema["PictureTexts"]>("vault/recover/picture", picture);

/** Site policies; those that differ from what is there are told, and left. */
export const sendPolicies = (file: Blob) =>
  post<Schema["PoliciesBroughtOut"]>("policies/file", file);

/** The bytes of a sealed backup. */
export const backupContent = (name: string) => bytes(`backups/${name}`);

/** The library of site policies as a file. */
export const policiesContent = (form: "json" | "rules") => bytes(`policies/file?form=${form}`);
