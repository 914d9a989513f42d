import { useCallback, useRef, useState } from "react";
import { answer, client, type Schema } from "../api/client";
import type { Wish } from "../domain/wish";

const PASSING_MS = 700;

type How = {
  /** A step of a slider on its way: the draw before it is let go. */
  passing?: boolean;
  /** The same wish again: chosen among draws. */
  again?: boolean;
  /** Places of words that stay. */
  keep?: number[];
};

function ask(wish: Wish, ids: { replaces: string | null; after: string | null }, keep: number[]) {
  const { replaces, after } = ids;
  switch (wish.kind) {
    case "characters":
      return client.POST("/draws", {
        body: { length: wish.length, policy: wish.policy, replaces },
      });
    case "words":
    case "answer":
      return client.POST("/draws/words", {
        body: { shape: wish.shape, policy: wish.policy, replaces, after, keep },
      });
    case "sentence":
      return client.POST("/draws/sentence", {
        body: { ...wish.shape, policy: wish.policy, replaces, after },
      });
    case "pin":
      return client.POST("/draws/pin", {
        body: { length: wish.length, policy_id: wish.policy_id, replaces },
      });
  }
}

/** Draws from the server, newest answer wins. A draw that a slider only passed is let go. */
export function useDraw() {
  const [drawn, setDrawn] = useState<Schema["DrawOut"] | null>(null);
  const [problem, setProblem] = useState<unknown>(null);
  const asked = useRef(0);
  const last = useRef<{ id: string; at: number } | null>(null);
  const latest = useRef<Schema["DrawOut"] | null>(null);
  const pending = useRef<Promise<void>>(Promise.resolve());

  const show = useCallback((found: Schema["DrawOut"] | null) => {
    latest.current = found;
    setDrawn(found);
    if (found) setProblem(null);
  }, []);

  /** Shows what a call answers, unless a later one was asked meanwhile. */
  const take = useCallback(
    (call: () => Promise<Schema["DrawOut"]>) => {
      const mine = ++asked.current;
      pending.current = (async () => {
        try {
          const found = await call();
          if (mine !== asked.current) return;
          last.current = { id: found.draw_id, at: performance.now() };
          show(found);
        } catch (error) {
          if (mine !== asked.current) return;
          show(null);
          setProblem(error);
        }
      })();
      return pending.current;
    },
    [show],
  );

  const draw = useCallback(
    (wish: Wish, how: How = {}) => {
      const brief = last.current && performance.now() - last.current.at < PASSING_MS;
      const replaces = how.passing && brief ? (last.current?.id ?? null) : null;
      const after = how.again ? (latest.current?.draw_id ?? null) : null;
      return take(() => answer(ask(wish, { replaces, after }, how.keep ?? [])));
    },
    [take],
  );

  /** The newest draw, once it is there: what is on its way is waited for. */
  const settled = useCallback(async () => {
    await pending.current;
    return latest.current;
  }, []);

  const back = useCallback(async () => {
    if (!last.current) return;
    try {
      const found = await answer(
        client.GET("/draws/{draw_id}/before", { params: { path: { draw_id: last.current.id } } }),
      );
      last.current = { id: found.draw_id, at: 0 };
      show(found);
    } catch (error) {
      setProblem(error);
    }
  }, [show]);

  return { drawn, problem, draw, take, back, settled, setProblem };
}
