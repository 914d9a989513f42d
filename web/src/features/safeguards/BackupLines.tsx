import { Input, InputNumber } from "antd";
import type { Schema } from "../../api/client";
import { Line } from "./Lines";

type Safeguards = Omit<Schema["SafeguardsIn"], "revision">;

/** Backups by schedule: how often, where, and which of them are kept. */
export function BackupLines(props: {
  held: Schema["SafeguardsOut"];
  wanted: Safeguards;
  onChange: (part: Partial<Safeguards>) => void;
}) {
  const { held, wanted, onChange } = props;
  const number = (name: "backup_daily" | "backup_weekly" | "backup_monthly", label: string) => (
    <span className="row one-line gap-4">
      <InputNumber
        aria-label={`Keep backups of so many ${label}`}
        value={wanted[name]}
        min={1}
        max={1000}
        onChange={(v) => v !== null && onChange({ [name]: v })}
        className="wide-72"
      />
      {label}
    </span>
  );
  return (
    <>
      <Line name="Backups by schedule" on={held.backup_every_h > 0}>
        every
        <InputNumber
          aria-label="Hours between backups"
          value={wanted.backup_every_h}
          min={0}
          max={8784}
          onChange={(v) => v !== null && onChange({ backup_every_h: v })}
          className="wide-92"
        />
        hours (0: never) into
        <Input
          aria-label="Folder for backups"
          value={wanted.backup_place}
          placeholder={held.backup_folder}
          autoComplete="off"
          spellCheck={false}
          className="wide-330"
          onChange={(event) => onChange({ backup_place: event.target.value })}
        />
      </Line>
      <Line name="Backups that are kept" on words={["by rule", ""]}>
        the newest of each of {number("backup_daily", "days")} {number("backup_weekly", "weeks")}
        {number("backup_monthly", "months")} <span>and all of the last day</span>
      </Line>
    </>
  );
}
