import { Button } from "antd";
import { useRef, useState } from "react";
import { policiesContent, sendPolicies, type Schema } from "../../api/client";
import { ProblemNote } from "../../shared/ProblemNote";
import { saveAs } from "../../shared/saveAs";
import { useAct } from "../../shared/useAct";

/** The library out as a file, and in again: what differs is asked before it is replaced. */
export function PolicyFiles() {
  const input = useRef<HTMLInputElement>(null);
  const file = useRef<File | null>(null);
  const [brought, setBrought] = useState<(Schema["PoliciesBroughtOut"] & { done: boolean }) | null>(
    null,
  );
  const { problem, busy, run } = useAct();
  const bring = (replaces: boolean) =>
    run(async () => {
      if (!file.current) return;
      setBrought(null);
      const found = await sendPolicies(file.current, replaces);
      setBrought({ ...found, done: replaces });
    });

  return (
    <>
      <span className="row gap-10">
        <Button disabled={busy} onClick={() => input.current?.click()}>
          Bring in…
        </Button>
        <Button
          disabled={busy}
          onClick={() =>
            void run(async () => saveAs(await policiesContent(), "site-policies.json"))
          }
        >
          Save as file
        </Button>
        <input
          ref={input}
          type="file"
          accept=".json,application/json"
          aria-label="Policy file"
          className="visually-hidden"
          tabIndex={-1}
          onChange={(event) => {
            file.current = event.currentTarget.files?.[0] ?? null;
            event.currentTarget.value = "";
            void bring(false);
          }}
        />
      </span>
      {(problem !== null || brought) && (
        <div className="whole-line" role="status">
          <ProblemNote problem={problem} />
          {brought && (
            <p className="small">
              {said(brought)}{" "}
              {brought.differing.length > 0 && !brought.done && (
                <button type="button" className="link" onClick={() => void bring(true)}>
                  replace them by the file&apos;s
                </button>
              )}
            </p>
          )}
        </div>
      )}
    </>
  );
}

function said(brought: Schema["PoliciesBroughtOut"] & { done: boolean }): string {
  const parts = [
    brought.added.length ? `New: ${brought.added.join(", ")}.` : "Nothing new.",
    brought.same.length ? `${brought.same.length} were here already.` : "",
    brought.differing.length
      ? `${brought.done ? "Replaced" : "Differing, left as they are"}: ${brought.differing.join(", ")}.`
      : "",
  ];
  return parts.filter(Boolean).join(" ");
}
