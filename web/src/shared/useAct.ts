import { useQueryClient } from "@tanstack/react-query";
import { useCallback, useState } from "react";

/** Runs an act of the person: its problem is kept to be shown, what it changed is read anew. */
export function useAct() {
  const queryClient = useQueryClient();
  const [problem, setProblem] = useState<unknown>(null);
  const [busy, setBusy] = useState(false);
  const run = useCallback(
    async (act: () => Promise<unknown>) => {
      setProblem(null);
      setBusy(true);
      try {
        await act();
      } catch (failure) {
        setProblem(failure);
        return;
      } finally {
        setBusy(false);
      }
      await queryClient.invalidateQueries();
    },
    [queryClient],
  );
  return { problem, setProblem, busy, run };
}
