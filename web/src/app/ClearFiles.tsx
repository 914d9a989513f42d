import { useQuery } from "@tanstack/react-query";
import { Button } from "antd";
import { answer, client } from "../api/client";
import { queries } from "../api/queries";
import { ProblemNote } from "../shared/ProblemNote";
import { useAct } from "../shared/useAct";

/** Files with every secret in the clear that still lie on this machine: said until they are gone. */
export function ClearFiles() {
  const { data } = useQuery(queries.clearFiles());
  const { problem, busy, run } = useAct();
  if (!data?.length) return null;
  const remove = (path: string) =>
    run(() => answer(client.POST("/exports/files/delete", { body: { path } })));
  return (
    <div className="warning" role="status">
      {data.map((one) => (
        <div key={one.path} className="row">
          <span className="breaks-anywhere">
            <b>Every secret lies in the clear in a file on this machine:</b> {one.path}
          </span>
          <Button size="small" disabled={busy} onClick={() => void remove(one.path)}>
            Delete it
          </Button>
        </div>
      ))}
      <ProblemNote problem={problem} />
    </div>
  );
}
