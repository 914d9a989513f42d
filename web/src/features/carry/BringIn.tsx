import { Button } from "antd";
import { useRef, useState } from "react";
import { Link } from "react-router";
import { answer, client, sendBundle, sendFile, type Schema } from "../../api/client";
import { count } from "../../domain/moments";
import { useClipboard } from "../../shared/clipboard";
import { ProblemNote } from "../../shared/ProblemNote";
import { useAct } from "../../shared/useAct";
import { AsItStands } from "./AsItStands";
import { ImportPreview } from "./ImportPreview";
import { LeftOut } from "./LeftOut";
import { MergePreview } from "./MergePreview";
import { FilePicker } from "../../shared/FilePicker";
import { useKeys } from "../../shared/useKeys";

const BUNDLE_BEGINS = "eyJ";

/** A table, a file of the exchange format, or a sealed bundle: looked at whole before anything. */
export function BringIn() {
  const { problem, busy, run } = useAct();
  const { copy } = useClipboard();
  const picker = useRef<HTMLInputElement>(null);
  const [fileName, setFileName] = useState("");
  const [table, setTable] = useState<Schema["ImportTable"] | null>(null);
  const [bundle, setBundle] = useState<Schema["BundleHeld"] | null>(null);
  const [done, setDone] = useState<Schema["Imported"] | null>(null);
  const [undone, setUndone] = useState<Schema["Undone"] | null>(null);

  const read = (file: File) =>
    run(async () => {
      setDone(null);
      setUndone(null);
      setTable(null);
      setBundle(null);
      setFileName(file.name);
      if ((await file.slice(0, 3).text()) === BUNDLE_BEGINS) setBundle(await sendBundle(file));
      else setTable(await sendFile(file));
    });
  const copyKey = () =>
    run(async () => {
      const { public_key } = await answer(client.POST("/bundles/key"));
      await copy("Public key of this vault", public_key, { secret: false });
    });
  const undo = () =>
    run(async () => {
      setUndone(await answer(client.POST("/imports/undo")));
      setDone(null);
    });

  useKeys({ f: () => picker.current?.click() });

  const isIdle = !table && !bundle && !done && !undone;
  const bringing = (
    <section className="stack" aria-label="Bring in">
      <p>
        Logins from a CSV file with a first row of column names, from a Credential Exchange file
        (JSON), or another copy of this vault as a sealed bundle. It is read on this machine; you
        see every row first, a backup is made, and then all come in or none.
      </p>
      <div className="row">
        <Button
          type={table || bundle ? "default" : "primary"}
          onClick={() => picker.current?.click()}
          loading={busy}
        >
          Choose a file… <kbd>F</kbd>
        </Button>
        <FilePicker
          ref={picker}
          label="File to bring in"
          accept=".csv,.tsv,.txt,.json,.jwe,text/csv,application/json"
          onFile={(file) => void read(file)}
        />
        {table && (
          <span className="small quiet">
            {fileName}: {count(table.row_count, "row")}, {table.encoding}
            {table.kind === "csv" &&
              `, separated by ${table.separator === "\t" ? "tabs" : `“${table.separator}”`}`}
          </span>
        )}
      </div>
      <ProblemNote problem={problem} />
      {done && (
        <div className="problem copper-edge" role="status">
          <b>
            {count(done.added_count, "login")} brought in
            {done.taken_count > 0 && `, ${count(done.taken_count, "login")} took from a row`}.
          </b>{" "}
          {done.taken_count > 0 && "What they had is in their history. "}
          <button type="button" className="link" onClick={() => void undo()}>
            Undo it
          </button>{" "}
          or <Link to="/">check the vault</Link> next.
        </div>
      )}
      {done && done.left_out.length > 0 && <LeftOut rows={done.left_out} />}
      {done && (
        <p>
          The file <b>{fileName}</b> still lies on your disk where you chose it, with every secret
          in the clear, and perhaps in the bin of the program that made it:{" "}
          {done.left_out.length > 0 ? "once the rows above are seen to, " : ""}delete it for good.
        </p>
      )}
      {undone && (
        <p role="status">
          <b>{count(undone.gone_count, "login")} taken back.</b>
          {undone.put_back_count > 0 &&
            ` ${count(undone.put_back_count, "login")} as before again.`}
          {undone.binned_count > 0 &&
            ` ${count(undone.binned_count, "login")} that you changed since lie in the bin.`}
        </p>
      )}
      {table && (
        <ImportPreview
          key={table.import_id}
          table={table}
          onDone={(imported) => {
            setDone(imported);
            setTable(null);
          }}
          onLeave={() => setTable(null)}
        />
      )}
      {bundle && (
        <MergePreview key={bundle.bundle_id} bundle={bundle} onLeave={() => setBundle(null)} />
      )}
      {!table && !bundle && (
        <p className="small">
          <button type="button" className="link" onClick={() => void copyKey()}>
            Copy this vault&apos;s key
          </button>{" "}
          <span className="quiet">
            with it another device seals bundles that this vault alone can open
          </span>
        </p>
      )}
    </section>
  );
  if (!isIdle) return bringing;
  return (
    <div className="carry-at-rest">
      {bringing}
      <AsItStands />
    </div>
  );
}
