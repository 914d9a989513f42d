import { useCallback, useState } from "react";

/** Runs an act of the person; its problem is kept to be shown. */
export function useAct() {
  const [problem, setProblem] = useState<unknown>(null);
  const [busy, setBusy] = useState(false);
  const run = useCallback(async (act: () => Promise<unknown>) => {
    setProblem(null);
    setBusy(true);
    try {
      await act();
    } catch (failure) {
      setProblem(failure);
    } finally {
      setBusy(false);
    }
  }, []);
  return { problem, setProblem, busy, run };
}
