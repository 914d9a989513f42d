import { sentence } from "../domain/problems";

/** What went wrong, in one sentence. */
export function ProblemNote({ problem }: { problem: unknown }) {
  if (!problem) return null;
  return (
    <p className="problem" role="alert">
      {sentence(problem)}
    </p>
  );
}
