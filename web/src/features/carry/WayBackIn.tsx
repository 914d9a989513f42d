import { useQuery } from "@tanstack/react-query";
import { Button, InputNumber } from "antd";
import { useRef, useState } from "react";
import { answer, client, type Schema } from "../../api/client";
import { queries } from "../../api/queries";
import { count, dayAndTime } from "../../domain/moments";
import { ProblemNote } from "../../shared/ProblemNote";
import { SheetsField } from "../../shared/SheetsField";
import { useAct } from "../../shared/useAct";
import { RecoverySheets } from "./RecoverySheets";
import { useKeys } from "../../shared/useKeys";
import { useNow } from "../../shared/useNow";
import { Dialogue } from "../../shared/Dialogue";

/** Recovery sheets: made, split among people, practised with, made void. */
export function WayBackIn() {
  const { data, isSuccess } = useQuery(queries.recovery());
  const { problem, busy, run } = useAct();
  const [threshold, setThreshold] = useState(2);
  const [split, setSplit] = useState(3);
  const [made, setMade] = useState<Schema["MadeSheets"] | null>(null);
  const [asking, setAsking] = useState<[number, number] | "void" | null>(null);
  const [practising, setPractising] = useState(false);
  const now = useNow();

  const make = (needed: number, of: number) =>
    run(async () => {
      const body = { threshold: needed, count: of };
      setMade(await answer(client.POST("/recovery", { body })));
    });
  const begin = (needed: number, of: number) =>
    data ? setAsking([needed, of]) : void make(needed, of);
  useKeys({ n: () => !busy && begin(1, 1) });
  const makeVoid = () => run(() => answer(client.DELETE("/recovery")));

  return (
    <section className="stack" aria-label="Way back in">
      <h2>Way back in</h2>
      <p>
        A recovery key opens the vault if its passphrase is forgotten. It is put on paper, on one
        sheet or split among people, and is stored nowhere else.
      </p>
      {isSuccess && (
        <p className="small">
          {data ? (
            <>
              <b>
                {data.count === 1
                  ? "One sheet opens this vault"
                  : `${data.threshold} of ${data.count} sheets open this vault`}
              </b>
              , made {dayAndTime(data.made_at, now)};{" "}
              {data.practised_at
                ? `last practised ${dayAndTime(data.practised_at, now)}.`
                : "never practised: try it once, before it is needed."}
            </>
          ) : (
            <span className="quiet">
              There is none yet: whoever forgets the passphrase loses the vault.
            </span>
          )}
        </p>
      )}
      <div className="row">
        <Button type={data ? "default" : "primary"} disabled={busy} onClick={() => begin(1, 1)}>
          Make one sheet… <kbd>N</kbd>
        </Button>
        {data && <Button onClick={() => setPractising(true)}>Practise…</Button>}
        {data && <Button onClick={() => setAsking("void")}>Make void…</Button>}
      </div>
      <div className="row">
        <Button disabled={busy} onClick={() => begin(threshold, split)}>
          Split among people…
        </Button>
        <span className="row small gap-6">
          any
          <InputNumber
            aria-label="Sheets needed"
            size="small"
            min={2}
            max={split}
            value={threshold}
            onChange={(v) => v !== null && setThreshold(v)}
            className="wide-58"
          />
          of
          <InputNumber
            aria-label="Sheets in all"
            size="small"
            min={threshold}
            max={16}
            value={split}
            onChange={(v) => v !== null && setSplit(v)}
            className="wide-58"
          />
          sheets open it; fewer say nothing of it
        </span>
      </div>
      <ProblemNote problem={problem} />
      {made && <RecoverySheets made={made} onClose={() => setMade(null)} />}
      {practising && <Practice onClose={() => setPractising(false)} />}
      <Dialogue
        open={asking !== null}
        title={asking === "void" ? "Make the sheets void?" : "Make new sheets?"}
        okText={asking === "void" ? "Make them void" : "Make new ones"}
        cancelText="Leave them"
        onCancel={() => setAsking(null)}
        onOk={() => {
          setAsking(null);
          if (asking === "void") void makeVoid();
          else if (asking) void make(...asking);
        }}
      >
        <p>
          {data && count(data.count, "sheet")} made {data && dayAndTime(data.made_at, now)} will
          open this vault no more; backups made until now, and copies kept before an upgrade, still
          open with them.
        </p>
      </Dialogue>
    </section>
  );
}

/** A rehearsal with the real sheets: nothing changes but the day it was done. */
function Practice({ onClose }: { onClose: () => void }) {
  const sheets = useRef<string[]>([]);
  const [enough, setEnough] = useState(false);
  const [done, setDone] = useState(false);
  const { problem, busy, run } = useAct();
  const [noteSheets] = useState(() => (found: string[], are: boolean) => {
    sheets.current = found;
    setEnough(are);
  });
  const practise = () =>
    run(async () => {
      const body = { sheets: sheets.current };
      await answer(client.POST("/recovery/practice", { body }));
      setDone(true);
    });
  return (
    <Dialogue open title="Practise with the sheets" footer={null} onCancel={onClose}>
      <div className="stack">
        {done ? (
          <>
            <p role="status">
              <b>These sheets open the vault.</b> Nothing was changed. Put them back where they are
              safe.
            </p>
            <div>
              <Button type="primary" onClick={onClose}>
                Good
              </Button>
            </div>
          </>
        ) : (
          <>
            <p className="small">
              Type the words of the real sheets, as if the passphrase were forgotten.
            </p>
            <SheetsField onSheets={noteSheets} />
            <ProblemNote problem={problem} />
            <div>
              <Button type="primary" disabled={!enough || busy} onClick={() => void practise()}>
                Try them
              </Button>
            </div>
          </>
        )}
      </div>
    </Dialogue>
  );
}
