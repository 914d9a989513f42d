import { useRef, useState } from "react";
import { answer, client, type Schema } from "../api/client";

/** The measure of what is being typed; an answer that comes late is dropped. */
export function useMeasure() {
  const [found, setFound] = useState<Schema["MeasureOut"] | null>(null);
  const [problem, setProblem] = useState<unknown>(null);
  const asked = useRef(0);

  const measureText = async (secret: string, context: string[] = []) => {
    const mine = ++asked.current;
    if (!secret) {
      setFound(null);
      return;
    }
    try {
      const fresh = await answer(client.POST("/strength/measure", { body: { secret, context } }));
      if (mine === asked.current) {
        setFound(fresh);
        setProblem(null);
      }
    } catch (error) {
      if (mine === asked.current) setProblem(error);
    }
  };
  return { found, problem, measureText };
}
