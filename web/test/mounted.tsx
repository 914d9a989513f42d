import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { render } from "@testing-library/react";
import type { ReactNode } from "react";
import { createMemoryRouter, Route, RouterProvider, Routes, useLocation } from "react-router";
import { vi } from "vitest";
import { installHooks, type Schema } from "../src/api/client";
import { ClipboardProvider } from "../src/shared/clipboard";

/** What a route answers: a document, or a refusal with its status. */
export class Refusal {
  constructor(
    readonly status: number,
    readonly code: string,
    readonly data: Record<string, unknown> = {},
  ) {}
}
type Answers = Record<string, unknown>;

export type Call = { route: string; body: unknown };

/** The document that was sent; a file is not looked into. */
function sent(body: BodyInit): unknown {
  const text = new TextDecoder().decode(body as ArrayBuffer);
  try {
    return JSON.parse(text);
  } catch {
    return "a file";
  }
}

/** A small server in memory at the one door: answers by `METHOD /path`, and every call it took. */
export function server(answers: Answers): Call[] {
  const calls: Call[] = [];
  vi.stubGlobal("fetch", async (url: string, init: RequestInit) => {
    const path = new URL(url).pathname.replace(/^\/api/, "");
    const route = `${init.method} ${path}`;
    calls.push({ route, body: init.body ? sent(init.body) : null });
    const found = route in answers ? answers[route] : new Refusal(404, "not_found");
    const given: unknown = await (typeof found === "function"
      ? (found as (body: unknown) => unknown)(calls.at(-1)?.body)
      : found);
    if (given instanceof Refusal)
      return new Response(JSON.stringify({ code: given.code, data: given.data }), {
        status: given.status,
      });
    return new Response(given === null ? null : JSON.stringify(given), {
      status: given === null ? 204 : 200,
      headers: given === null ? {} : { "content-type": "application/json" },
    });
  });
  return calls;
}

function Where() {
  return <div data-testid="where">{useLocation().pathname}</div>;
}

/** A view as the frame shows it, at a path. */
export function mount(view: ReactNode, at = "/", pattern = "*"): void {
  const client = new QueryClient({
    defaultOptions: { queries: { retry: false, staleTime: 2_000 } },
  });
  installHooks({
    onLocked: () => {},
    askForProof: async () => "proof",
    onRenewed: (keys) =>
      void client.invalidateQueries({ predicate: (q) => keys.includes(String(q.queryKey[0])) }),
  });
  const shown = (
    <ClipboardProvider clearAfterS={30}>
      <Routes>
        <Route path={pattern} element={view} />
        <Route path="*" element={<h1>elsewhere</h1>} />
      </Routes>
      <Where />
    </ClipboardProvider>
  );
  const router = createMemoryRouter([{ path: "*", element: shown }], { initialEntries: [at] });
  render(
    <QueryClientProvider client={client}>
      <RouterProvider router={router} />
    </QueryClientProvider>,
  );
}

/** A login as lists show it. */
export function loginRow(
  title: string,
  more: Partial<Schema["LoginRow"]> = {},
): Schema["LoginRow"] {
  return {
    login_id: title.toLowerCase().padEnd(32, "0").slice(0, 32),
    title,
    user_name: "ilse",
    address: `https://${title.toLowerCase()}.example`,
    domain: `${title.toLowerCase()}.example`,
    folder: "",
    owner: "",
    tags: [],
    importance: "normal",
    expires_on: null,
    has_secret: true,
    secret_since_at: "2026-05-01T00:00:00Z",
    rotation_id: null,
    guess_number_log10: 12,
    second_factor: "none",
    ...more,
  } as Schema["LoginRow"];
}
