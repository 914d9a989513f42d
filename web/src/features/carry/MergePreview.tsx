import { Button, Checkbox } from "antd";
import { useRef, useState } from "react";
import { Link } from "react-router";
import { answer, client, type Schema } from "../../api/client";
import { count, dayAndTime } from "../../domain/moments";
import { ActProgress } from "../../shared/ActProgress";
import { ManyRows } from "../../shared/ManyRows";
import { ProblemNote } from "../../shared/ProblemNote";
import { SecretInput } from "../../shared/SecretInput";
import { useAct } from "../../shared/useAct";
import { useNow } from "../../shared/useNow";

type Line = Schema["MergeLineOut"];
type Taken = Schema["Why"];

const WHAT: Record<string, string> = {
  added: "comes in",
  changed: "takes changes over",
  removed: "was deleted for good there",
  parted: "changed on both sides: nothing of either is lost",
  asked: "deleted on one side, changed on the other",
};

const GONE =
  "deleted for good on one side, changed on the other: it is kept; delete it once more if it is to go";

/** How many records lines are of: one may have two, what happens to it and what is asked of it. */
function touched(lines: readonly Schema["MergeLineOut"][]): number {
  return new Set(lines.map((line) => `${line.kind} ${line.login_id}`)).size;
}

const BECAUSE: Record<Taken, string> = {
  more_often: "as it was changed more often",
  later: "as the later by both clocks",
  clock_ahead: "as the other was made while its clock ran ahead",
  chance: "by chance, as no clock tells which is later",
};

/** Another copy of the vault, opened by its passphrase: what merging it would change, then done. */
export function MergePreview(props: { bundle: Schema["BundleHeld"]; onLeave: () => void }) {
  const params = { path: { bundle_id: props.bundle.bundle_id } };
  const { problem, busy, run } = useAct();
  const passphrase = useRef<HTMLInputElement>(null);
  const [facts, setFacts] = useState<Schema["BundleFacts"] | null>(null);
  const [back, setBack] = useState<Set<string>>(new Set());
  const [done, setDone] = useState<Line[] | null>(null);
  const [merging, setMerging] = useState(false);
  const now = useNow();

  const open = () =>
    run(async () => {
      const body = { passphrase: passphrase.current?.value ?? "" };
      setFacts(await answer(client.POST("/bundles/{bundle_id}/open", { params, body })));
    });
  const merge = () =>
    run(async () => {
      setMerging(true);
      const body = { take_out_of_bin: [...back] };
      setDone(await answer(client.POST("/bundles/{bundle_id}/merge", { params, body })));
    }).finally(() => setMerging(false));
  const leave = () =>
    run(async () => {
      await answer(client.DELETE("/bundles/{bundle_id}", { params }));
      props.onLeave();
    });

  if (done)
    return (
      <p role="status">
        <b>Merged: {count(touched(done), "record")} changed here.</b>{" "}
        {done.some((line) => line.what === "parted") && (
          <>
            What was changed on both sides stands in the <Link to="/">worklist</Link>.
          </>
        )}
      </p>
    );
  if (!facts)
    return (
      <form
        className="stack at-most-460"
        onSubmit={(event) => {
          event.preventDefault();
          void open();
        }}
      >
        {props.bundle.for_a_key ? (
          <p>
            It is sealed for a vault&apos;s key: if that is this one, it opens without a passphrase.
          </p>
        ) : (
          <SecretInput ref={passphrase} label="Passphrase of the bundle" name="bundle-passphrase" />
        )}
        <ProblemNote problem={problem} />
        <div className="row">
          <Button type="primary" htmlType="submit" loading={busy}>
            Open it
          </Button>
          <Button onClick={() => void leave()}>Cancel</Button>
        </div>
      </form>
    );
  const asked = new Set(facts.lines.filter((l) => l.what === "asked").map((l) => l.login_id));
  // That it comes in is said with what is asked of it.
  const lines = facts.lines.filter((l) => l.what !== "added" || !asked.has(l.login_id));
  const logins = touched(lines.filter((line) => line.kind === "login"));
  const others = touched(lines) - logins;
  return (
    <>
      <p>
        {facts.is_own ? "A copy of this vault" : "Another vault"}, sealed{" "}
        {dayAndTime(facts.made_at, now)}.{" "}
        {facts.lines.length === 0
          ? "It has nothing that is not here already."
          : `Merging changes ${count(logins, "login")} here${others ? ` and ${count(others, "other record")}` : ""}. Each change since the copies parted is kept.`}
        {facts.lines.some((line) => line.what === "parted") &&
          " What both changed is taken from where it was changed more often, or else later, unless that copy’s clock ran ahead."}
      </p>
      <ProblemNote problem={problem} />
      <div className="row">
        <Button
          type="primary"
          disabled={facts.lines.length === 0 || busy}
          onClick={() => void merge()}
        >
          Merge them
        </Button>
        {merging ? (
          <ActProgress name="Merging" />
        ) : (
          <Button onClick={() => void leave()}>Cancel</Button>
        )}
      </div>
      <ManyRows
        label="What merging changes"
        columns="minmax(0, 3fr) minmax(0, 2fr) minmax(0, 5fr)"
        heads={["Record", "User name", "What happens here"]}
        rows={lines}
        cells={(line) => [
          line.kind === "login" ? line.title : [line.kind, line.title].filter(Boolean).join(": "),
          line.user_name,
          <span key="what">
            {line.what === "asked" && !line.in_bin ? GONE : (WHAT[line.what] ?? line.what)}
            {line.texts.map((one, i) => (
              <div key={i}>
                {one.field.replace(/_/g, " ")}: “{one.taken}” is taken, {BECAUSE[one.why]}; “
                {one.kept}” is kept beside it
              </div>
            ))}
            {line.secret_taken && (
              <div>
                secret: one is taken, {BECAUSE[line.secret_taken]}; the other is in the history
              </div>
            )}
            {line.what === "asked" && line.in_bin && (
              <>
                {" "}
                <Checkbox
                  checked={back.has(line.login_id)}
                  onChange={(event) => {
                    const fresh = new Set(back);
                    if (event.target.checked) fresh.add(line.login_id);
                    else fresh.delete(line.login_id);
                    setBack(fresh);
                  }}
                >
                  take it out of the bin
                </Checkbox>
              </>
            )}
          </span>,
        ]}
      />
    </>
  );
}
