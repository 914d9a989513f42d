import { Button } from "antd";
import { Component, useEffect, useEffectEvent, type ReactNode } from "react";
import { answer, client } from "../api/client";
import { viewArrived } from "../shared/typedAhead";
import { loadAgain } from "./lazyView";

const LOOK_EVERY_MS = 2_000;

type State = { failure: unknown; at?: string };

/** What fails in a view is said in its place; the frame stays. */
export class ViewBoundary extends Component<{ at?: string; children: ReactNode }, State> {
  override state: State = { failure: null };

  static getDerivedStateFromError(failure: unknown): Partial<State> {
    return { failure };
  }

  /** Another view is another try. */
  static getDerivedStateFromProps(props: { at?: string }, state: State): State | null {
    return props.at === state.at ? null : { failure: null, at: props.at };
  }

  override componentDidCatch(): void {
    viewArrived(window.location.pathname);
  }

  override render(): ReactNode {
    const { failure } = this.state;
    if (failure === null) return this.props.children;
    const again = () => {
      loadAgain();
      this.setState({ failure: null });
    };
    return isNotLoaded(failure) ? <NotLoaded onAgain={again} /> : <Failed onAgain={again} />;
  }
}

/** A script of the interface that did not come. */
function isNotLoaded(failure: unknown): boolean {
  return (
    failure instanceof Error &&
    /dynamically imported module|Importing a module|preload CSS/i.test(failure.message)
  );
}

function Failed({ onAgain }: { onAgain: () => void }) {
  return (
    <main className="page stack" role="alert">
      <h1>This view failed</h1>
      <p>Nothing of the vault was changed by it. The others go on working.</p>
      <div className="row">
        <Button type="primary" onClick={onAgain}>
          Try again
        </Button>
      </div>
    </main>
  );
}

/** Heals by itself when the server answers again. */
function NotLoaded({ onAgain }: { onAgain: () => void }) {
  const onLook = useEffectEvent(async () => {
    try {
      await answer(client.GET("/vault"));
    } catch {
      return;
    }
    onAgain();
  });
  useEffect(() => {
    const timer = window.setInterval(() => void onLook(), LOOK_EVERY_MS);
    return () => window.clearInterval(timer);
  }, []);
  return (
    <main className="page stack" role="alert">
      <h1>This view could not be loaded</h1>
      <p>New Knot does not answer: is it still running? It is asked again by itself.</p>
      <div className="row">
        <Button type="primary" onClick={onAgain}>
          Try again
        </Button>
        <Button onClick={() => window.location.reload()}>Load the page anew</Button>
      </div>
    </main>
  );
}
