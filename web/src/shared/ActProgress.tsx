import { useQuery } from "@tanstack/react-query";
import { Button, Progress } from "antd";
import { client } from "../api/client";
import { queries } from "../api/queries";

/** How far the one long act of the server is, and a stop. */
export function ActProgress({ name }: { name: string }) {
  const { data } = useQuery(queries.progress());
  const done = data?.total ? Math.floor((data.done / data.total) * 100) : 0;
  return (
    <div className="row" role="status">
      <Progress percent={done} size="small" className="wide-160" aria-label={name} />
      <Button onClick={() => void client.POST("/checks/stop")}>Stop</Button>
    </div>
  );
}
