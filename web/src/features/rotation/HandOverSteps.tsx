import { Button } from "antd";
import type { ReactNode } from "react";
import { Link } from "react-router";
import type { Schema } from "../../api/client";
import { changePageOf } from "../../domain/address";
import { dayAndTime } from "../../domain/moments";
import { stepOf } from "../../domain/rotation";
import { makesCodes } from "../../domain/secondFactor";
import { KeepOut } from "../../shared/KeepOut";
import { ProblemNote } from "../../shared/ProblemNote";
import { SecretText } from "../../shared/SecretText";
import type { HandOver } from "./useHandOver";
import { RotationEnded } from "./RotationEnded";
import { useNow } from "../../shared/useNow";

const ORDER = ["current", "open", "new", "answer", "verify", "ended"];

type Props = { over: HandOver; rotation: Schema["RotationOut"] };

/** The numbered steps of one change, or of a sign-up where there is no secret yet. */
export function HandOverSteps({ over, rotation }: Props) {
  const { beside } = over;
  const signingUp = rotation.is_sign_up;

  return (
    <div className="strip-steps">
      <header className="row spread">
        <div>
          <h1>
            <Link to={`/logins/${rotation.login_id}`} className="plain-link">
              {rotation.title}
            </Link>
          </h1>
        </div>
        {beside.strip ? null : (
          <span className="small quiet">
            {signingUp ? "sign-up" : "rotation"} <kbd>Esc</kbd>{" "}
            {rotation.is_open ? "later" : "back"}
          </span>
        )}
      </header>
      <div className="row hand-over-steps-row">
        <span className="small quiet">{rotation.user_name}</span>
        {rotation.user_name && (
          <Button size="small" onClick={() => void over.copyUserName()}>
            Copy name <kbd>U</kbd>
          </Button>
        )}
        {over.login && makesCodes(over.login) && (
          <Button size="small" onClick={() => void over.copyCode()}>
            Copy code <kbd>C</kbd>
          </Button>
        )}
        <Button size="small" onClick={beside.strip ? beside.close : () => void beside.open()}>
          {beside.strip ? "Back to the page" : "Beside the site"} <kbd>W</kbd>
        </Button>
      </div>
      <ProblemNote problem={over.problem} />
      {rotation.is_open ? (
        <Steps over={over} rotation={rotation} />
      ) : (
        <RotationEnded rotation={rotation} />
      )}
    </div>
  );
}

/** What is done in turn; what is done already says when. */
function Steps({ over, rotation }: Props) {
  const now = useNow();
  const { can } = over;
  const step = stepOf(rotation, over.opened);
  const at = ORDER.indexOf(step);
  const phase = (name: string) =>
    ORDER.indexOf(name) < at ? "step done" : name === step ? "step now" : "step";
  const accepted = rotation.state === "accepted" || rotation.state === "verified";
  const signingUp = rotation.is_sign_up;
  const first = signingUp ? 0 : 1;
  return (
    <>
      {!signingUp && (
        <Step no={1} phase={phase("current")} title="Copy the current secret">
          {rotation.current_copied_at && (
            <p className="small quiet">copied {dayAndTime(rotation.current_copied_at, now)}</p>
          )}
          {rotation.is_open && !accepted && (
            <div className="acts">
              <Button
                type={step === "current" ? "primary" : "default"}
                onClick={() => void over.copyCurrent()}
              >
                Copy current <kbd>1</kbd>
              </Button>
            </div>
          )}
        </Step>
      )}
      <Step
        no={first + 1}
        phase={phase("open")}
        title={signingUp ? "Open the site's sign-up form" : "Open the site, and its change form"}
      >
        <p className="small quiet">{rotation.address || "no address stored"}</p>
        {rotation.is_open && rotation.address && (
          <div className="acts centred">
            <Button type={step === "open" ? "primary" : "default"} onClick={over.openSite}>
              {over.changePage ? "Open its change page" : "Open the site"} <kbd>2</kbd>
            </Button>
            {!signingUp && !over.changePage && (
              <a
                className="small"
                href={changePageOf(rotation.address)}
                target="_blank"
                rel="noopener noreferrer"
                onClick={over.noteOpened}
              >
                its change page
              </a>
            )}
          </div>
        )}
      </Step>
      <Step
        no={first + 2}
        phase={phase("new")}
        title={signingUp ? "Paste the secret" : "Paste the new one, twice"}
      >
        {rotation.state === "refused" && (
          <p className="small">
            The site refused it{rotation.refusal && <>: “{rotation.refusal}”</>}.
          </p>
        )}
        {rotation.staged_length !== null && !accepted && rotation.is_open && (
          <>
            <p className="hand-over-steps-p">
              {over.shown === null ? (
                <span className="held">
                  {"•".repeat(rotation.staged_length).replace(/(.{4})/g, "$1 ")}
                </span>
              ) : (
                <SecretText secret={over.shown} />
              )}
            </p>
            <p className="small quiet">
              {rotation.staged_length} characters
              {rotation.staged_bits !== null && `, ${rotation.staged_bits} bits`}, sealed on disk
              {over.shown === null && "; hidden until you ask"}
            </p>
          </>
        )}
        <div className="acts">
          {can("hand_out") && (
            <>
              <Button
                type={step === "new" ? "primary" : "default"}
                onClick={() => void over.copyNew()}
              >
                {rotation.handed_out_at ? "Copy again" : "Copy new"} <kbd>3</kbd>
              </Button>
              <Button onClick={() => void over.toggle()}>
                {over.shown === null ? "Show" : "Hide"} <kbd>H</kbd>
              </Button>
              <Button onClick={() => void over.spellOut()}>
                Spell it out <kbd>P</kbd>
              </Button>
            </>
          )}
          {can("stage") && (
            <Button
              type={rotation.state === "refused" ? "primary" : "default"}
              onClick={() => void over.drawAgain()}
            >
              Draw another <kbd>D</kbd>
            </Button>
          )}
        </div>
      </Step>
      <Step no={first + 3} phase={phase("answer")} title="Did the site take it?">
        {rotation.state === "unsure" && (
          <p className="small">
            {signingUp
              ? "The secret is kept. Sign in with it: the answer tells."
              : "Both secrets are kept. Sign in with one: the answer tells which holds. Where neither opens it, “Which one opens it?” goes on."}
          </p>
        )}
        {can("accept") && (
          <div className="acts">
            <Button className="wide-choice" onClick={() => void over.event("accept")}>
              {signingUp ? "Yes, I am signed up" : "Yes, it is changed"} <kbd>Y</kbd>
            </Button>
            <Button className="wide-choice" onClick={() => over.setRefusing(true)}>
              No, because… <kbd>N</kbd>
            </Button>
            {can("doubt") && (
              <Button className="wide-choice" onClick={() => void over.event("doubt")}>
                I am not sure <kbd>S</kbd>
              </Button>
            )}
          </div>
        )}
      </Step>
      <Step
        no={first + 4}
        phase={phase("verify")}
        title={
          signingUp
            ? "Sign out, and in with it"
            : "Sign out, and in with it: then the old one is retired"
        }
      >
        {can("verify") && (
          <div className="acts">
            <Button type="primary" onClick={() => void over.event("verify")}>
              It opens the site <kbd>V</kbd>
            </Button>
            <Button onClick={() => void over.event("withdraw")}>It does not</Button>
            {rotation.has_former && (
              <Button onClick={() => void over.copyFormer()}>
                Copy the former <kbd>B</kbd>
              </Button>
            )}
          </div>
        )}
      </Step>
      {can("give_up") && (
        <p className="small">
          <button type="button" className="link" onClick={() => void over.event("give_up")}>
            {signingUp ? "Give this sign-up up" : "Give this rotation up"}
          </button>{" "}
          <span className="quiet">
            {signingUp
              ? "the staged secret goes to the history, marked never used"
              : "the current secret stays; the staged one goes to the history, marked never used"}
          </span>
        </p>
      )}
      {signingUp && rotation.is_open && <KeepOut address={rotation.address} />}
    </>
  );
}

function Step(props: { no: number; phase: string; title: string; children: ReactNode }) {
  return (
    <section className={props.phase} aria-label={`Step ${props.no}: ${props.title}`}>
      <span className="no" aria-hidden="true">
        {props.no}
      </span>
      <div>
        <h2>{props.title}</h2>
        {props.children}
      </div>
    </section>
  );
}
