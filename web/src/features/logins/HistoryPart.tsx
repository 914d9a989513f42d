import { useState } from "react";
import { useNavigate } from "react-router";
import { answer, client, type Schema } from "../../api/client";
import { age, day, dayAndTime } from "../../domain/moments";
import { SmallRuler } from "../../shared/GuessRuler";
import { SecretText } from "../../shared/SecretText";
import { Splice, type Bar } from "../../shared/Splice";
import { useClipboard } from "../../shared/clipboard";
import { fetchSecret, placeOf, type useReveal } from "./useReveal";
import { opening } from "../../shared/typedAhead";
import { useKeys } from "../../shared/useKeys";
import { useNow } from "../../shared/useNow";
import { Dialogue } from "../../shared/Dialogue";

type Guarded = (act: () => Promise<unknown>) => Promise<void>;
type Compared = Schema["ComparedOut"];

/** Each secret of a login on a time line, and what can be done with the earlier ones. */
export function HistoryPart(props: {
  login: Schema["LoginSheet"];
  reveal: ReturnType<typeof useReveal>;
  guarded: Guarded;
}) {
  const { login, reveal, guarded } = props;
  const [compared, setCompared] = useState<Compared[] | null>(null);
  const [restoring, setRestoring] = useState<string | null>(null);
  const now = useNow();
  const compare = () =>
    guarded(async () => {
      if (compared) setCompared(null);
      else
        setCompared(
          await answer(
            client.POST("/logins/{login_id}/history/compare", {
              params: { path: { login_id: login.login_id } },
            }),
          ),
        );
    });
  const newest = login.history.find((e) => !e.field);
  useKeys({ b: () => newest && setRestoring(newest.earlier_id) });
  const worthOf = (id: string | null) => compared?.find((one) => one.earlier_id === id);
  return (
    <section>
      <header className="row spread">
        <h2>History</h2>
        {newest && (
          <button type="button" className="link small" onClick={() => void compare()}>
            {compared ? "without their worth" : "compare their worth"}
          </button>
        )}
      </header>
      <Splice bars={barsOf(login, now)} now={now} />
      <p className="small below-6">
        Current secret since {dayAndTime(login.secret_since_at, now)} (
        {age(login.secret_since_at, now)})
      </p>
      <Worth of={worthOf(null)} />
      {login.history_is_damaged ? (
        <p className="problem" role="alert">
          The earlier secrets of this login are not what was written, so they are not shown. A
          backup may still hold them. Until then nothing is put over them: the secret cannot be
          replaced.
        </p>
      ) : login.history.length === 0 ? (
        <p className="small quiet">No earlier secret.</p>
      ) : (
        <table className="plain small">
          <thead>
            <tr>
              <th>served</th>
              <th>
                <span className="visually-hidden">acts</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {login.history.map((e) => (
              <EarlierLine
                key={e.earlier_id}
                entry={e}
                login={login}
                shown={reveal.shown[placeOf({ kind: "earlier", earlier_id: e.earlier_id })]}
                onToggle={() =>
                  void guarded(() => reveal.toggle({ kind: "earlier", earlier_id: e.earlier_id }))
                }
                worth={worthOf(e.earlier_id)}
                guarded={guarded}
                hasKey={e === newest}
                isRestoring={restoring === e.earlier_id}
                onRestoring={(on) => setRestoring(on ? e.earlier_id : null)}
              />
            ))}
          </tbody>
        </table>
      )}
    </section>
  );
}

/** Length and guess number of one secret, and what it has in common with the current one. */
function Worth({ of }: { of: Compared | undefined }) {
  if (!of) return null;
  const shares = [
    of.shared_start > 2 && `the first ${of.shared_start}`,
    of.shared_end > 2 && `the last ${of.shared_end}`,
  ].filter(Boolean);
  return (
    <div className="row small history-part-row">
      <SmallRuler log10={of.guess_number_log10} />
      <span className="quiet">
        {of.length} characters
        {of.earlier_id !== null &&
          shares.length > 0 &&
          `, ${shares.join(" and ")} as in the current one`}
      </span>
    </div>
  );
}

function EarlierLine(props: {
  entry: Schema["EarlierRow"];
  login: Schema["LoginSheet"];
  shown: string | undefined;
  onToggle: () => void;
  worth: Compared | undefined;
  guarded: Guarded;
  /** It is the one that the key goes back to. */
  hasKey: boolean;
  isRestoring: boolean;
  onRestoring: (on: boolean) => void;
}) {
  const { entry, login, guarded } = props;
  const navigate = useNavigate();
  const { copy } = useClipboard();
  const [isDeleting, setDeleting] = useState(false);
  const path = { login_id: login.login_id, earlier_id: entry.earlier_id };
  const when = entry.parted
    ? `the other copy, as of ${day(entry.since_at)}`
    : `${day(entry.since_at)} to ${day(entry.until_at)}`;
  const what = entry.field ? `the field ${entry.field} as of ${when}` : `the secret of ${when}`;
  const restore = () =>
    guarded(async () => {
      if (entry.field) {
        await answer(
          client.POST("/logins/{login_id}/history/{earlier_id}/restore", { params: { path } }),
        );
        return;
      }
      const body = { login_id: login.login_id, earlier_id: entry.earlier_id };
      const rotation = await opening(answer(client.POST("/rotations", { body })));
      void navigate(`/rotate/${rotation.rotation_id}`);
    });
  const remove = () =>
    guarded(() =>
      answer(client.DELETE("/logins/{login_id}/history/{earlier_id}", { params: { path } })),
    );
  const copyIt = () =>
    guarded(async () => {
      const wanted = { kind: "earlier", earlier_id: entry.earlier_id } as const;
      await copy(
        `Earlier secret of ${login.title}`,
        await fetchSecret(login.login_id, wanted, "copy"),
      );
    });
  const acts = [
    {
      says: props.shown === undefined ? "show" : "hide",
      name: "Show or hide",
      act: props.onToggle,
    },
    { says: "copy", name: "Copy", act: () => void copyIt() },
    { says: "restore…", name: "Restore", act: () => props.onRestoring(true) },
    { says: "delete…", name: "Delete", act: () => setDeleting(true) },
  ];
  return (
    <tr>
      <td>
        {entry.field && <b>{entry.field}: </b>}
        {served(entry)}
        {props.shown !== undefined && (
          <div className="history-part-div">
            <SecretText secret={props.shown} />
          </div>
        )}
        <Worth of={props.worth} />
      </td>
      <td className="right history-part-right">
        <span className="row history-part-row-2">
          {acts.map((one) => (
            <span key={one.name}>
              <button
                type="button"
                className="link"
                onClick={one.act}
                aria-label={`${one.says.replace("…", "")}: ${what}`}
              >
                {one.says}
              </button>
              {props.hasKey && one.name === "Restore" && (
                <>
                  {" "}
                  <kbd>B</kbd>
                </>
              )}
            </span>
          ))}
        </span>
        <Dialogue
          open={props.isRestoring}
          title={entry.field ? "Put this field back?" : "Go back to this earlier secret?"}
          okText={entry.field ? "Put it back" : "Stage it"}
          cancelText="Cancel"
          // Staging changes nothing yet; a field would be replaced at once.
          okButtonProps={entry.field ? {} : { "data-begins": "" }}
          onCancel={() => props.onRestoring(false)}
          onOk={() => {
            props.onRestoring(false);
            void restore();
          }}
        >
          <p className="wraps">
            {entry.field
              ? `${what.replace(/^t/, "T")} becomes current here, and the present one goes to the history.`
              : `It is staged as the new secret of a rotation; the current one holds until the site took it. Whoever learned it while it served could use it again: prefer a new one, unless the site itself went back to it.`}
          </p>
        </Dialogue>
        <Dialogue
          open={isDeleting}
          title="Delete it for good?"
          okText="Delete it"
          cancelText="Keep it"
          onCancel={() => setDeleting(false)}
          onOk={() => {
            setDeleting(false);
            void remove();
          }}
        >
          <p className="wraps">
            {what.replace(/^t/, "T")} cannot be had back, except from a backup; nor will a new
            secret be held against it.
          </p>
        </Dialogue>
      </td>
    </tr>
  );
}

/** When an entry served, as far as it is known. */
function served(entry: Schema["EarlierRow"]) {
  if (entry.parted) return `in another copy since ${day(entry.since_at)}`;
  if (!entry.used) return `staged ${day(entry.since_at)}, never used`;
  return `${day(entry.since_at)} to ${day(entry.until_at)}`;
}

function barsOf(login: Schema["LoginSheet"], now: number): Bar[] {
  const own = login.history.filter((e) => !e.field);
  const bars: Bar[] = own.map((e) => ({
    from: Date.parse(e.since_at),
    to: e.parted ? now : Date.parse(e.until_at),
    kind: e.parted ? "staged" : e.used ? "earlier" : "unused",
    label: e.used && !e.parted ? `earlier: ${served(e)}` : served(e),
  }));
  if (login.has_secret)
    bars.push({
      from: Date.parse(login.secret_since_at),
      to: now,
      kind: "current",
      label: `current since ${day(login.secret_since_at)}`,
    });
  return bars.sort((a, b) => a.from - b.from);
}
