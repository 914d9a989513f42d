import { useCallback, useRef, useState } from "react";
import { answer, client, type Schema } from "../api/client";
import type { Policy } from "../domain/policy";

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

  const draw = useCallback(async (wish: DrawWish, passing = false) => {
    const mine = ++asked.current;
    const brief = last.current && performance.now() - last.current.at < PASSING_MS;
    const replaces = passing && brief ? (last.current?.id ?? null) : null;
    try {
      const found = await answer(client.POST("/draws", { body: { ...wish, replaces } }));
      if (mine !== asked.current) return;
      last.current = { id: found.draw_id, at: performance.now() };
      setDrawn(found);
      setProblem(null);
    } catch (error) {
      if (mine !== asked.current) return;
      setDrawn(null);
      setProblem(error);
    }
  }, []);

  const back = useCallback(async () => {
    if (!last.current) return;
    try {
      const found = await answer(
        client.GET("/draws/{draw_id}/before", { params: { path: { draw_id: last.current.id } } }),
      );
      last.current = { id: found.draw_id, at: 0 };
      setDrawn(found);
      setProblem(null);
    } catch (error) {
      setProblem(error);
    }
  }, []);

  return { drawn, problem, draw, back, setProblem };
}
