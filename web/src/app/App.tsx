import { QueryClient, QueryClientProvider, useQuery, useQueryClient } from "@tanstack/react-query";
import { App as AntApp, ConfigProvider } from "antd";
import { useCallback, useEffect, useState } from "react";
import { createBrowserRouter, RouterProvider } from "react-router";
import { installHooks, sessionToken } from "../api/client";
import { forgetWishes, queries } from "../api/queries";
import { CreateVault } from "../features/vault/CreateVault";
import { UnlockVault } from "../features/vault/UnlockVault";
import { forgetRemembered } from "../shared/remembered";
import { noteEntered } from "../shared/entered";
import { KnotMark } from "../shared/icons";
import { ProblemNote } from "../shared/ProblemNote";
import { Frame } from "./Frame";
import { ProofDialog, useProofQueue } from "./ProofDialog";
import { nonce } from "./styleNonce";
import { antdTheme } from "./theme";
import { useTone } from "./useTone";

// The server is on this machine: it is asked with or without a network.
const networkMode = "always";

const queryClient = new QueryClient({
  defaultOptions: {
    queries: { networkMode, retry: false, staleTime: 2_000, refetchOnWindowFocus: true },
    mutations: { networkMode, gcTime: 0, retry: false },
  },
});

const router = createBrowserRouter([{ path: "*", Component: Gate }]);

export function App() {
  const tone = useTone();
  return (
    <ConfigProvider csp={{ nonce }} theme={antdTheme(tone)} wave={{ disabled: true }}>
      <AntApp style={{ height: "100%" }}>
        <QueryClientProvider client={queryClient}>
          <RouterProvider router={router} />
        </QueryClientProvider>
      </AntApp>
    </ConfigProvider>
  );
}

/** New, locked or unlocked: which of the three a person sees. */
function Gate() {
  const client = useQueryClient();
  const [open, setOpen] = useState(sessionToken.get() !== "");
  const [locking, setLocking] = useState(false);
  const proof = useProofQueue();
  const { data, error } = useQuery({ ...queries.vault(), refetchInterval: open ? false : 2_000 });

  const locked = useCallback(() => {
    setOpen(false);
    setLocking(false);
    forgetRemembered();
    forgetWishes();
    client.clear();
    void client.invalidateQueries();
  }, [client]);

  useEffect(() => {
    const onRenewed = (keys: string[]) => {
      const rest = (key: readonly unknown[]) => keys.includes(String(key[0]));
      void client.invalidateQueries({ predicate: (query) => rest(query.queryKey) });
    };
    installHooks({ onLocked: locked, askForProof: proof.ask, onRenewed });
  }, [client, locked, proof.ask]);

  useEffect(() => {
    // A page that comes back from the back/forward cache may be older than a lock.
    const onShow = (event: PageTransitionEvent) => {
      if (event.persisted) window.location.reload();
    };
    window.addEventListener("pageshow", onShow);
    return () => window.removeEventListener("pageshow", onShow);
  }, []);

  const entered = (token: string) => {
    sessionToken.set(token);
    noteEntered();
    setOpen(true);
    void client.invalidateQueries();
  };

  if (navigator.serviceWorker?.controller)
    return (
      <main className="entrance">
        <p className="problem" role="alert">
          <b>A program that held this port before stands between you and New Knot.</b> It is being
          removed: close every window of this address and open it anew. No passphrase is asked for
          until it is gone.
        </p>
      </main>
    );
  if (locking) return <Locking />;
  if (open)
    return (
      <>
        <Frame onLocking={() => setLocking(true)} onLocked={locked} />
        <ProofDialog queue={proof} />
      </>
    );
  if (error && !data)
    return (
      <main className="entrance">
        <ProblemNote problem={error} />
      </main>
    );
  if (!data) return <main className="entrance" aria-busy="true" />;
  return data.state === "new" ? (
    <CreateVault
      state={data}
      onEntered={entered}
      onPlaced={() => void client.invalidateQueries()}
    />
  ) : (
    <UnlockVault path={data.path} onEntered={entered} />
  );
}

/** Nothing is left to see or to press while the server lets end what is at work. */
function Locking() {
  return (
    <main className="entrance" aria-busy="true">
      <div className="brand">
        <KnotMark /> New Knot
      </div>
      <h1>Locking…</h1>
      <p className="quiet" role="status">
        What is at work is let end, ten seconds at most; then the keys go.
      </p>
    </main>
  );
}
