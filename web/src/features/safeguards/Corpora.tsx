import { Button, Switch } from "antd";
import { useState } from "react";
import { answer, client, type Schema } from "../../api/client";
import { sentence } from "../../domain/problems";
import { StartCommand } from "../../shared/StartCommand";

/** The corpora of this machine, each with what it is, and a look at whether it is whole. */
export function Corpora(props: {
  held: Schema["SafeguardsOut"];
  used: boolean;
  onUse: (on: boolean) => void;
}) {
  const [said, setSaid] = useState<Record<string, string>>({});
  const [busy, setBusy] = useState("");
  const verify = async (file_name: string) => {
    setBusy(file_name);
    let says;
    try {
      const call = client.POST("/safeguards/corpora/{file_name}/verify", {
        params: { path: { file_name } },
      });
      says = (await answer(call)).is_whole ? "whole, every byte as written" : "stopped";
    } catch (failure) {
      says = sentence(failure);
    }
    setSaid((now) => ({ ...now, [file_name]: says }));
    setBusy("");
  };
  if (!props.held.corpora.length)
    return (
      <>
        no corpus on this machine: build one with <StartCommand>corpus build LIST…</StartCommand>
      </>
    );
  return (
    <>
      <Switch
        aria-label="Check against the breach corpora"
        checked={props.used}
        onChange={props.onUse}
      />
      <ul className="bare">
        {props.held.corpora.map((one) => (
          <li key={one.file_name} className="row">
            {one.reason ? (
              <span>
                {one.file_name}: <b>cannot be used</b>, {one.reason}
              </span>
            ) : (
              <>
                <span>
                  {one.name} of {one.dated_on}, {one.unique_count?.toLocaleString("en")} secrets
                </span>
                {busy === one.file_name ? (
                  <Button size="small" onClick={() => void client.POST("/checks/stop")}>
                    Stop reading it
                  </Button>
                ) : (
                  <Button
                    size="small"
                    disabled={busy !== ""}
                    onClick={() => void verify(one.file_name)}
                  >
                    Verify <span className="visually-hidden">{one.name}</span>
                  </Button>
                )}
                <span role="status">{said[one.file_name]}</span>
              </>
            )}
          </li>
        ))}
      </ul>
    </>
  );
}
