import { useParams } from "react-router";
import type { Schema } from "../../api/client";
import { dayAndTime } from "../../domain/moments";
import { STATE_SAYS } from "../../domain/rotation";
import { ProblemNote } from "../../shared/ProblemNote";
import { SpellOut } from "../../shared/SpellOut";
import { Splice, type Bar } from "../../shared/Splice";
import { StripOrPage } from "../../shared/StripWindow";
import { WhatFalls } from "../../shared/WhatFalls";
import { CampaignPlace } from "./CampaignPlace";
import { DrivePanel } from "./DrivePanel";
import { FaultTrials } from "./FaultTrials";
import { HandOverSteps } from "./HandOverSteps";
import { MailNotes } from "./MailNotes";
import { SiteTakes } from "./SiteTakes";
import { RefusalDialog } from "./RefusalDialog";
import { WayOn } from "./WayOn";
import { useHandOver } from "./useHandOver";
import { useNow } from "../../shared/useNow";

/** The steps of one change beside the site's own window; nothing is lost in any order. */
export default function HandOverPage() {
  const { rotationId = "" } = useParams();
  const over = useHandOver(rotationId);
  const { rotation, login, beside } = over;
  const now = useNow();

  if (over.error)
    return (
      <main className="page">
        <ProblemNote problem={over.error} />
      </main>
    );
  if (!rotation) return <main className="page" aria-busy="true" />;

  const holds = rotation.state === "accepted" || rotation.state === "verified";
  return (
    <main className="page">
      <div className="two hand-over-page-two">
        <StripOrPage beside={beside} title={rotation.title}>
          <HandOverSteps over={over} rotation={rotation} />
        </StripOrPage>
        <aside aria-label="What is kept" className="stack">
          <h2>{STATE_SAYS[rotation.state].replace(/^./, (c) => c.toUpperCase())}</h2>
          {rotation.is_open && (
            <p>
              {rotation.is_sign_up
                ? "Nothing is lost: the secret is sealed on disk before it goes to the site."
                : "Nothing is lost: the old secret is kept beside the new one, whatever the site answers."}
            </p>
          )}
          {login && <Splice bars={barsOf(login, rotation, now)} now={now} />}
          <SiteTakes loginId={rotation.login_id} />
          {rotation.is_open && (
            <WhatFalls
              loginId={rotation.login_id}
              heading="What is open today, and falls with it"
              without="unfinished"
            />
          )}
          {login && !rotation.is_sign_up && (
            <>
              <WayOn rotation={rotation} driven={login.driven} />
              <DrivePanel rotation={rotation} driven={login.driven} />
            </>
          )}
          {login && !login.driven && holds && <FaultTrials rotation={rotation} />}
        </aside>
        <aside aria-label="What happened" className="stack">
          <MailNotes rotation={rotation} />
          <h2>What happened</h2>
          <table className="plain small">
            <caption className="visually-hidden">Steps so far</caption>
            <tbody>
              {[...rotation.steps].reverse().map((s, i) => (
                <tr key={i}>
                  <td className="quiet wide-120">{dayAndTime(s.at, now)}</td>
                  <td>{EVENT_SAYS[s.event]}</td>
                </tr>
              ))}
            </tbody>
          </table>
          {rotation.is_open && <CampaignPlace rotation={rotation} />}
        </aside>
      </div>
      {over.spelling !== null && (
        <SpellOut secret={over.spelling} strip={beside.strip} onClose={over.stopSpelling} />
      )}
      {over.refusing && (
        <RefusalDialog
          rotation={rotation}
          strip={beside.strip}
          onClose={() => over.setRefusing(false)}
          onDone={() => {
            over.setRefusing(false);
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
