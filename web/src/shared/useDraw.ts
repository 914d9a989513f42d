import { useCallback, useRef, useState } from "react";
import { answer, client, type Schema } from "../api/client";
import type { Policy } from "../domain/policy";

export type WordsWish = {
  words: number;
  separator: string;
  capitals: boolean;
  digit: boolean;
  policy_id?: string | undefined;
};

export type DrawWish = {
  length: number;
  policy?: Policy | undefined;
  policy_id?: string | undefined;
};

const PASSING_MS = 700;

/** Draws from the server, newest answer wins. A draw that a slider only passed is let go. */
export function useDraw() {
  const [drawn, setDrawn] = useState<Schema["DrawOut"] | null>(null);
  const [problem, setProblem] = useState<unknown>(null);
  const asked = useRef(0);
  const last = useRef<{ id: string; at: number } | null>(null);
  const latest = useRef<Schema["DrawOut"] | null>(null);
  const pending = useRef<Promise<void>>(Promise.resolve());

  const show = (found: Schema["DrawOut"] | null) => {
    latest.current = found;
    setDrawn(found);
  };

  const drawNow = useCallback(async (wish: DrawWish | WordsWish, passing = false) => {
    const mine = ++asked.current;
    const brief = last.current && performance.now() - last.current.at < PASSING_MS;
    const replaces = passing && brief ? (last.current?.id ?? null) : null;
    try {
      const found = await ("words" in wish
        ? answer(client.POST("/draws/words", { body: { ...wish, replaces } }))
        : answer(client.POST("/draws", { body: { ...wish, replaces } })));
      if (mine !== asked.current) return;
      last.current = { id: found.draw_id, at: performance.now() };
      show(found);
      setProblem(null);
    } catch (error) {
      if (mine !== asked.current) return;
      show(null);
      setProblem(error);
    }
  }, []);

  const draw = useCallback(
    (wish: DrawWish | WordsWish, passing = false) => {
      pending.current = drawNow(wish, passing);
      return pending.current;
    },
    [drawNow],
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
      setProblem(null);
    } catch (error) {
      setProblem(error);
    }
  }, []);

  return { drawn, problem, draw, back, settled, setProblem };
}
