import { Button, Popover } from "antd";
import { useState } from "react";
import { answer, client, type Schema } from "../../api/client";
import { dayAndTime } from "../../domain/moments";
import { KINDS } from "../../domain/wish";
import { useNow } from "../../shared/useNow";

type Props = { onTake: (drawId: string) => void };

/** The draws that are still kept, by kind and time; a secret only when taken. */
export function EarlierDraws({ onTake }: Props) {
  const [open, setOpen] = useState(false);
  const [draws, setDraws] = useState<Schema["EarlierDrawOut"][]>([]);
  const now = useNow();
  const change = async (next: boolean) => {
    if (next) setDraws(await answer(client.GET("/draws")).catch(() => []));
    setOpen(next);
  };
  const empty = async () => {
    await answer(client.DELETE("/draws"));
    setDraws([]);
  };
  return (
    <Popover
      trigger="click"
      open={open}
      onOpenChange={(next) => void change(next)}
      placement="bottom"
      title="Earlier draws: the newest 20, sealed in the vault"
      content={
        <div className="earlier-draws-div">
          {draws.map((one) => (
            <button
              key={one.draw_id}
              type="button"
              className="facet"
              onClick={() => {
                setOpen(false);
                onTake(one.draw_id);
              }}
            >
              <span>
                {KINDS.find((k) => k.value === one.kind)?.label}, {one.length} characters
              </span>
              <span className="quiet">
                {one.entropy_bits === null ? "chosen" : `${one.entropy_bits} bits`},{" "}
                {dayAndTime(one.drawn_at, now)}
              </span>
            </button>
          ))}
          {draws.length === 0 && <p className="quiet">None yet.</p>}
          {draws.length > 0 && (
            <button type="button" className="link small" onClick={() => void empty()}>
              Let all of them go
            </button>
          )}
        </div>
      }
    >
      <Button aria-expanded={open}>Earlier draws…</Button>
    </Popover>
  );
}
