import { Button } from "antd";
import { useState } from "react";
import { answer, client, type Schema } from "../../api/client";
import { count } from "../../domain/moments";
import { ManyRows } from "../../shared/ManyRows";
import { ProblemNote } from "../../shared/ProblemNote";
import { useAct } from "../../shared/useAct";
import { Dialogue } from "../../shared/Dialogue";

/** The rows of a file of which something did not come in, each with its reason; and as a file. */
export function LeftOut({ rows }: { rows: Schema["LeftOut"][] }) {
  const { problem, busy, run } = useAct();
  const [asking, setAsking] = useState(false);
  const [written, setWritten] = useState<string | null>(null);
  const write = () =>
    run(async () => {
      setAsking(false);
      setWritten((await answer(client.POST("/imports/left-out/file"))).path);
    });
  return (
    <section className="stack" aria-label="Left out">
      <p role="alert">
        <b>{count(rows.length, "row")} left out, in whole or in part.</b> Look through them before
        the file goes: not all that they hold is in the vault.
      </p>
      <ManyRows
        label="Rows that were left out"
        columns="64px minmax(0, 1fr) minmax(0, 1fr) minmax(0, 2fr)"
        heads={["Line", "Title", "User name", "Why"]}
        rows={rows}
        cells={(row) => [row.line, row.title, row.user_name, row.reason]}
      />
      <div className="row">
        <Button loading={busy} onClick={() => setAsking(true)}>
          Write them into a file…
        </Button>
        {written && (
          <span role="status" className="small">
            Written to <b>{written}</b>, in the clear: New Knot reminds you until it is gone.
          </span>
        )}
      </div>
      <ProblemNote problem={problem} />
      <Dialogue
        open={asking}
        title="Write these rows in the clear?"
        okText="Write them"
        cancelText="Cancel"
        onOk={() => void write()}
        onCancel={() => setAsking(false)}
      >
        <p>
          The file holds their secrets as the first one does. It is written beside the vault, for
          you alone.
        </p>
      </Dialogue>
    </section>
  );
}
