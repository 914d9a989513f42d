import { useQuery, useQueryClient } from "@tanstack/react-query";
import { Button } from "antd";
import { useEffect, useState, type ReactNode } from "react";
import { Link, useNavigate, useParams } from "react-router";
import { answer, client, type Schema } from "../../api/client";
import { queries } from "../../api/queries";
import { dayAndTime } from "../../domain/moments";
import { changePageOf, openable } from "../../domain/address";
import { STATE_SAYS, stepOf } from "../../domain/rotation";
import { ClipboardNote, useClipboard } from "../../shared/clipboard";
import { ProblemNote } from "../../shared/ProblemNote";
import { SecretText } from "../../shared/SecretText";
import { SpellOut } from "../../shared/SpellOut";
import { Splice, type Bar } from "../../shared/Splice";
import { InStrip, useStripWindow } from "../../shared/StripWindow";
import { useAct } from "../../shared/useAct";
import { useKeys } from "../../shared/useKeys";
import { DrivePanel } from "./DrivePanel";
import { RefusalDialog } from "./RefusalDialog";

type Event = Schema["EventIn"]["event"];

/** The steps of one change beside the site's own window; nothing is lost in any order. */
export default function HandOverPage() {
  const { rotationId = "" } = useParams();
  const navigate = useNavigate();
  const { data: rotation, error } = useQuery(queries.rotation(rotationId));
  const login = useQuery({
    ...queries.login(rotation?.login_id ?? ""),
    enabled: Boolean(rotation),
  });
  const { copy } = useClipboard();
  const beside = useStripWindow();
  const [shown, setShown] = useState<string | null>(null);
  const [spelling, setSpelling] = useState<string | null>(null);
  const [opened, setOpened] = useState(false);
  const [refusing, setRefusing] = useState(false);
  const queryClient = useQueryClient();
  const { problem, run } = useAct();
  const now = Date.now();
  const params = { path: { rotation_id: rotationId } };

  useEffect(() => {
    setShown(null);
    setSpelling(null);
  }, [rotationId, rotation?.staged_at]);

  const event = (name: Event) =>
    run(() =>
      answer(
        client.POST("/rotations/{rotation_id}/events", {
          params,
          body: { event: name, refusal: "" },
        }),
      ),
    );
  const handOut = async (purpose: "copy" | "reveal") =>
    (await answer(client.POST("/rotations/{rotation_id}/hand-out", { params, body: { purpose } })))
      .secret;

  const copyCurrent = () =>
    run(async () => {
      const { secret } = await answer(
        client.POST("/rotations/{rotation_id}/current", { params, body: { purpose: "copy" } }),
      );
      await copy(`Current secret of ${rotation?.title}`, secret);
    });
  const copyNew = () =>
    run(async () => copy(`New secret of ${rotation?.title}`, await handOut("copy")));
  const copyFormer = () =>
    run(async () => {
      const { secret } = await answer(
        client.POST("/rotations/{rotation_id}/former", { params, body: { purpose: "copy" } }),
      );
      await copy(`Former secret of ${rotation?.title}`, secret);
    });
  const copyUserName = () =>
    run(async () => {
      if (rotation)
        await copy(`User name of ${rotation.title}`, rotation.user_name, { secret: false });
    });
  const copyCode = () =>
    run(async () => {
      const { code } = await answer(
        client.POST("/logins/{login_id}/code", {
          params: { path: { login_id: rotation?.login_id ?? "" } },
          body: { purpose: "copy" },
        }),
      );
      await copy(`Code of ${rotation?.title}`, code);
    });
  const toggle = () =>
    shown === null ? run(async () => setShown(await handOut("reveal"))) : setShown(null);
  const spellOut = () => run(async () => setSpelling(await handOut("reveal")));
  const openSite = () => {
    if (rotation?.address) window.open(openable(rotation.address), "_blank", "noopener,noreferrer");
    setOpened(true);
  };
  const drawAgain = () =>
    run(() => answer(client.POST("/rotations/{rotation_id}/stage", { params, body: {} })));

  const can = (name: Schema["RotationEvent"]) => rotation?.allowed.includes(name) ?? false;
  useKeys(
    {
      Escape: () => void navigate("/rotate"),
      u: () => rotation && void copyUserName(),
      "1": () => rotation?.is_open && void copyCurrent(),
      "2": openSite,
      "3": () => can("hand_out") && void copyNew(),
      h: () => can("hand_out") && void toggle(),
      y: () => can("accept") && void event("accept"),
      n: () => can("refuse") && setRefusing(true),
      s: () => can("doubt") && void event("doubt"),
      d: () => can("stage") && void drawAgain(),
      v: () => can("verify") && void event("verify"),
      b: () => rotation?.has_former && void copyFormer(),
      o: openSite,
      p: () => can("hand_out") && void spellOut(),
      c: () => login.data?.second_factor === "here" && void copyCode(),
      w: () => (beside.strip ? beside.close() : void beside.open()),
    },
    Boolean(rotation),
  );

  if (error)
    return (
      <main className="page">
        <ProblemNote problem={error} />
      </main>
    );
  if (!rotation) return <main className="page" aria-busy="true" />;

  const step = stepOf(rotation, opened || rotation.handed_out_at !== null);
  const order = ["current", "open", "new", "answer", "verify", "ended"];
  const at = order.indexOf(step);
  const phase = (name: string) =>
    order.indexOf(name) < at ? "step done" : name === step ? "step now" : "step";
  const accepted = rotation.state === "accepted" || rotation.state === "verified";

  const steps = (
    <div className="strip-steps">
      <header className="row spread">
        <div>
          <h1>
            <Link
              to={`/logins/${rotation.login_id}`}
              style={{ color: "inherit", textDecoration: "none" }}
            >
              {rotation.title}
            </Link>
          </h1>
        </div>
        {beside.strip ? null : (
          <span className="small quiet">
            rotation <kbd>Esc</kbd> {rotation.is_open ? "later" : "back"}
          </span>
        )}
      </header>
      <div className="row" style={{ gap: 8, marginTop: -12 }}>
        <span className="small quiet">{rotation.user_name}</span>
        {rotation.user_name && (
          <Button size="small" onClick={() => void copyUserName()}>
            Copy name <kbd>U</kbd>
          </Button>
        )}
        {login.data?.second_factor === "here" && (
          <Button size="small" onClick={() => void copyCode()}>
            Copy code <kbd>C</kbd>
          </Button>
        )}
        <Button size="small" onClick={beside.strip ? beside.close : () => void beside.open()}>
          {beside.strip ? "Back to the page" : "Beside the site"} <kbd>W</kbd>
        </Button>
      </div>
      <ProblemNote problem={problem} />
      {!rotation.is_open && (
        <p>
          <b>{rotation.state === "verified" ? "Done." : "Given up."}</b> It is{" "}
          {STATE_SAYS[rotation.state]}.
        </p>
      )}
      <Step no={1} phase={phase("current")} title="Copy the current secret">
        {rotation.current_copied_at && (
          <p className="small quiet">copied {dayAndTime(rotation.current_copied_at, now)}</p>
        )}
        {rotation.is_open && !accepted && (
          <div className="acts">
            <Button
              type={step === "current" ? "primary" : "default"}
              onClick={() => void copyCurrent()}
            >
              Copy current <kbd>1</kbd>
            </Button>
          </div>
        )}
      </Step>
      <Step no={2} phase={phase("open")} title="Open the site, and its change form">
        <p className="small quiet">{rotation.address || "no address stored"}</p>
        {rotation.is_open && rotation.address && (
          <div className="acts">
            <Button type={step === "open" ? "primary" : "default"} onClick={openSite}>
              Open the site <kbd>2</kbd>
            </Button>
            <a
              className="small"
              href={changePageOf(rotation.address)}
              target="_blank"
              rel="noopener noreferrer"
              onClick={() => setOpened(true)}
            >
              its change page
            </a>
          </div>
        )}
      </Step>
      <Step no={3} phase={phase("new")} title="Paste the new one, twice">
        {rotation.state === "refused" && (
          <p className="small">
            The site refused it{rotation.refusal && <>: “{rotation.refusal}”</>}.
          </p>
        )}
        {rotation.staged_length !== null && !accepted && rotation.is_open && (
          <>
            <p style={{ margin: "6px 0 2px", fontSize: 19 }}>
              {shown === null ? (
                <span className="held">
                  {"•".repeat(rotation.staged_length).replace(/(.{4})/g, "$1 ")}
                </span>
              ) : (
                <SecretText secret={shown} />
              )}
            </p>
            <p className="small quiet">
              {rotation.staged_length} characters
              {rotation.staged_bits !== null && `, ${rotation.staged_bits} bits`}, sealed on disk
              {shown === null && "; held back until you ask"} <kbd>H</kbd>
            </p>
          </>
        )}
        <div className="acts">
          {can("hand_out") && (
            <>
              <Button type={step === "new" ? "primary" : "default"} onClick={() => void copyNew()}>
                {rotation.handed_out_at ? "Copy again" : "Copy new"} <kbd>3</kbd>
              </Button>
              <Button onClick={() => void toggle()}>{shown === null ? "Show" : "Hold back"}</Button>
              <Button onClick={() => void spellOut()}>
                Spell it out <kbd>P</kbd>
              </Button>
            </>
          )}
          {can("stage") && (
            <Button
              type={rotation.state === "refused" ? "primary" : "default"}
              onClick={() => void drawAgain()}
            >
              Draw another <kbd>D</kbd>
            </Button>
          )}
        </div>
      </Step>
      <Step no={4} phase={phase("answer")} title="Did the site take it?">
        {rotation.state === "unsure" && (
          <p className="small">
            Both secrets are kept. Sign in with one: the answer tells which holds.
          </p>
        )}
        {can("accept") && (
          <div className="acts">
            <Button className="wide-choice" onClick={() => void event("accept")}>
              Yes, it is changed <kbd>Y</kbd>
            </Button>
            <Button className="wide-choice" onClick={() => setRefusing(true)}>
              No, because… <kbd>N</kbd>
            </Button>
            {can("doubt") && (
              <Button className="wide-choice" onClick={() => void event("doubt")}>
                I am not sure <kbd>S</kbd>
              </Button>
            )}
          </div>
        )}
      </Step>
      <Step no={5} phase={phase("verify")} title="Sign in with it, then the old one is retired">
        {can("verify") && (
          <div className="acts">
            <Button type="primary" onClick={() => void event("verify")}>
              It opens the site <kbd>V</kbd>
            </Button>
            <Button onClick={() => void event("withdraw")}>It does not</Button>
            {rotation.has_former && (
              <Button onClick={() => void copyFormer()}>
                Copy the former <kbd>B</kbd>
              </Button>
            )}
          </div>
        )}
      </Step>
      {can("give_up") && (
        <p className="small">
          <button type="button" className="link" onClick={() => void event("give_up")}>
            Give this rotation up
          </button>{" "}
          <span className="quiet">
            the current secret stays; the staged one goes to the history, marked never used
          </span>
        </p>
      )}
    </div>
  );

  return (
    <main className="page">
      <div className="two" style={{ gridTemplateColumns: "430px minmax(0, 1fr)" }}>
        {beside.strip ? (
          <div className="strip-steps">
            <h1>{rotation.title}</h1>
            <p>The steps are in the small window, to stand beside the site.</p>
            <div>
              <Button onClick={beside.close}>
                Bring them back <kbd>W</kbd>
              </Button>
            </div>
          </div>
        ) : (
          steps
        )}
        {beside.strip && (
          <InStrip strip={beside.strip}>
            {steps}
            <ClipboardNote />
          </InStrip>
        )}
        <aside aria-label="What is kept" className="stack" style={{ maxWidth: 520 }}>
          <h2>{STATE_SAYS[rotation.state].replace(/^./, (c) => c.toUpperCase())}</h2>
          <p>Nothing is lost: the old secret holds until the new one is known to work.</p>
          {login.data && <Splice bars={barsOf(login.data, rotation, now)} now={now} />}
          {login.data && <DrivePanel rotation={rotation} driven={login.data.driven} />}
          <table className="plain small">
            <caption className="visually-hidden">Steps so far</caption>
            <tbody>
              {[...rotation.steps].reverse().map((s, i) => (
                <tr key={i}>
                  <td style={{ width: 190 }} className="quiet">
                    {dayAndTime(s.at, now)}
                  </td>
                  <td>{EVENT_SAYS[s.event]}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </aside>
      </div>
      {spelling !== null && (
        <SpellOut secret={spelling} strip={beside.strip} onClose={() => setSpelling(null)} />
      )}
      {refusing && (
        <RefusalDialog
          rotation={rotation}
          strip={beside.strip}
          onClose={() => setRefusing(false)}
          onDone={() => {
            setRefusing(false);
            void queryClient.invalidateQueries();
          }}
        />
      )}
    </main>
  );
}

const EVENT_SAYS: Record<Schema["RotationEvent"], string> = {
  stage: "new secret drawn and sealed as staged",
  hand_out: "new secret handed out",
  accept: "the site took it: it is current",
  refuse: "the site refused it",
  doubt: "not sure which one holds",
  withdraw: "it did not open the site: the old one is current again",
  verify: "signed in with the new one",
  give_up: "given up",
};

function Step(props: { no: number; phase: string; title: string; children: ReactNode }) {
  return (
    <section className={props.phase} aria-label={`Step ${props.no}: ${props.title}`}>
      <span className="no" aria-hidden="true">
        {props.no}
      </span>
      <div>
        <h3>{props.title}</h3>
        {props.children}
      </div>
    </section>
  );
}

function barsOf(login: Schema["LoginSheet"], rotation: Schema["RotationOut"], now: number): Bar[] {
  const bars: Bar[] = login.history
    .filter((e) => e.used && !e.field)
    .map((e) => ({
      from: Date.parse(e.since_at),
      to: Date.parse(e.until_at),
      kind: "earlier",
      label: `earlier until ${dayAndTime(e.until_at, now)}`,
    }));
  if (login.has_secret)
    bars.push({
      from: Date.parse(login.secret_since_at),
      to: now,
      kind: "current",
      label: `current since ${dayAndTime(login.secret_since_at, now)}`,
    });
  if (rotation.staged_length !== null && rotation.staged_at && rotation.is_open)
    bars.push({
      from: Date.parse(rotation.staged_at),
      to: now,
      kind: "staged",
      label: `staged ${dayAndTime(rotation.staged_at, now)}`,
    });
  return bars;
}
