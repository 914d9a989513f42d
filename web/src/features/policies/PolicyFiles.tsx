import { Button } from "antd";
import { useQuery } from "@tanstack/react-query";
import { useRef, useState } from "react";
import { policiesContent, sendPolicies, type Schema } from "../../api/client";
import { queries } from "../../api/queries";
import { ProblemNote } from "../../shared/ProblemNote";
import { saveAs } from "../../shared/saveAs";
import { useAct } from "../../shared/useAct";
import { PartedPolicies } from "./PartedPolicies";

/** The library out as a file, and in again: what differs is chosen rule by rule. */
export function PolicyFiles() {
  const input = useRef<HTMLInputElement>(null);
  const [brought, setBrought] = useState<Schema["PoliciesBroughtOut"] | null>(null);
  const library = useQuery(queries.policies()).data?.policies ?? [];
  const { problem, busy, run } = useAct();
  const bring = (file: File | undefined) =>
    run(async () => {
      setBrought(null);
      if (file) setBrought(await sendPolicies(file));
    });
  const save = (form: "json" | "rules") =>
    void run(async () =>
      saveAs(await policiesContent(form), `site-policies.${form === "json" ? "json" : "txt"}`),
    );

  return (
    <>
      <span className="row gap-10">
        <Button disabled={busy} onClick={() => input.current?.click()}>
          Bring in…
        </Button>
        <Button disabled={busy} onClick={() => save("json")}>
          Save as JSON
        </Button>
        <Button disabled={busy} onClick={() => save("rules")}>
          Save as rule text
        </Button>
        <input
          ref={input}
          type="file"
          accept=".json,.txt,application/json,text/plain"
          aria-label="Policy file"
          className="visually-hidden"
          tabIndex={-1}
          onChange={(event) => {
            const file = event.currentTarget.files?.[0];
            void bring(file);
            event.currentTarget.value = "";
          }}
        />
      </span>
      {(problem !== null || brought) && (
        <div className="whole-line">
          <ProblemNote problem={problem} />
          {brought && (
            <>
              <p className="small" role="status">
                {said(brought)}
              </p>
              <PartedPolicies parted={brought.parted} library={library} />
            </>
          )}
        </div>
      )}
    </>
  );
}

function said(brought: Schema["PoliciesBroughtOut"]): string {
  const parts = [
    brought.added.length ? `New: ${brought.added.join(", ")}.` : "Nothing new.",
    brought.same.length ? `${brought.same.length} were here already.` : "",
    brought.differing.length
      ? `Otherwise in the file, and left as they are here until you choose: ${brought.differing.join(", ")}.`
      : "",
  ];
  return parts.filter(Boolean).join(" ");
}
