import { useQuery } from "@tanstack/react-query";
import { Button, Input, InputNumber } from "antd";
import { useState } from "react";
import { answer, client } from "../../api/client";
import { queries } from "../../api/queries";
import { count } from "../../domain/moments";
import { ProblemNote } from "../../shared/ProblemNote";
import { useAct } from "../../shared/useAct";
import { Line } from "./Lines";
import { Dialogue } from "../../shared/Dialogue";

/** How long earlier secrets are kept; what is past it goes only when one says so. */
export function HistoryLine(props: {
  keepDays: number;
  heldDays: number;
  onKeep: (days: number) => void;
}) {
  const { data } = useQuery({ ...queries.pastRetention(), enabled: props.heldDays > 0 });
  const { problem, busy, run } = useAct();
  const [asking, setAsking] = useState(false);
  const remove = () => run(() => answer(client.DELETE("/history/past-retention")));
  return (
    <Line
      name="Earlier secrets"
      on={props.heldDays === 0}
      words={["kept for ever", `kept ${props.heldDays} days`]}
    >
      kept for
      <InputNumber
        aria-label="Keep earlier secrets for so many days"
        value={props.keepDays}
        min={0}
        max={36500}
        onChange={(v) => v !== null && props.onKeep(v)}
        className="wide-92"
      />
      days (0: for ever); as many as the site remembers stay in any case
      {data && data.secret_count > 0 && (
        <Button size="small" disabled={busy} onClick={() => setAsking(true)}>
          Delete {count(data.secret_count, "secret")} past that…
        </Button>
      )}
      <ProblemNote problem={problem} />
      <Dialogue
        open={asking}
        title="Delete them for good?"
        okText="Delete them"
        cancelText="Keep them"
        onCancel={() => setAsking(false)}
        onOk={() => {
          setAsking(false);
          void remove();
        }}
      >
        <p>
          {data && count(data.secret_count, "earlier secret")} of{" "}
          {data && count(data.login_count, "login")} cannot be had back, except from a backup.
        </p>
      </Dialogue>
    </Line>
  );
}

/** Places for which nothing is offered to be saved, nor brought in. */
export function KeptOutLine(props: { keptOut: string[]; onChange: (kept_out: string[]) => void }) {
  return (
    <Line
      name="Places kept out"
      on
      words={[props.keptOut.length ? count(props.keptOut.length, "place") : "none", ""]}
    >
      <Input.TextArea
        aria-label="Places kept out, one a line"
        rows={Math.min(6, Math.max(1, props.keptOut.length))}
        className="wide-320"
        autoComplete="off"
        spellCheck={false}
        value={props.keptOut.join("\n")}
        onChange={(event) =>
          props.onChange(event.target.value ? event.target.value.split("\n") : [])
        }
      />
      <span>one a line: no login is offered for them, and they are skipped when brought in</span>
    </Line>
  );
}
