import { useQuery } from "@tanstack/react-query";
import { Button } from "antd";
import { useState } from "react";
import { Link, useLocation, useNavigate, useParams } from "react-router";
import type { Schema } from "../../api/client";
import { queries } from "../../api/queries";
import { makesCodes } from "../../domain/secondFactor";
import { count, day, dayAndTime } from "../../domain/moments";
import { useClipboard } from "../../shared/clipboard";
import { ProblemNote } from "../../shared/ProblemNote";
import { SecretText } from "../../shared/SecretText";
import { useKeys } from "../../shared/useKeys";
import { SecretWorth } from "./SecretWorth";
import { WhatFalls } from "../../shared/WhatFalls";
import { useLoginActs } from "./useLoginActs";
import { HistoryPart } from "./HistoryPart";
import { OtherTexts } from "./OtherTexts";
import { SecondFactorPart } from "./SecondFactorPart";
import { SignInStrip } from "./SignInStrip";
import { fetchSecret, placeOf, useReveal, type Wanted } from "./useReveal";
import { useNow } from "../../shared/useNow";
import { Dialogue } from "../../shared/Dialogue";

const HELD_BACK = "•••• •••• ••••";
export default function LoginPage() {
  const { loginId = "" } = useParams();
  const navigate = useNavigate();
  const { data: login, error } = useQuery(queries.login(loginId));
  const resetsBy = login?.resets_by ?? "";
  const mailbox = useQuery({ ...queries.login(resetsBy), enabled: resetsBy !== "" }).data;
  const acts = useLoginActs();
  const reveal = useReveal(loginId);
  const [asking, setAsking] = useState(false);
  const now = useNow();

  const isAsked = useLocation().pathname.endsWith("/sign-in");
  const isSigningIn = isAsked && login?.deleted_at === null;
  const signIn = (on: boolean) => void navigate(`/logins/${loginId}${on ? "/sign-in" : ""}`);

  const toggle = (wanted: Wanted) => acts.guarded(() => reveal.toggle(wanted));
  useKeys(
    {
      // The strip has its own of these, which count its steps.
      ...(!isSigningIn && {
        Escape: () => void navigate("/logins"),
        u: () => login && void acts.copyUserName(login),
        y: () => login && void acts.copySecret(login),
        c: () => login && makesCodes(login) && void acts.copyCode(login),
        s: () => signIn(true),
        o: () => login && acts.openSite(login),
        h: () => void toggle({ kind: "current" }),
      }),
      e: () => void navigate(`/logins/${loginId}/edit`),
      r: () => login && acts.rotate(login),
      Delete: () => setAsking(true),
    },
    Boolean(login),
  );

  if (error)
    return (
      <main className="page">
        <ProblemNote problem={error} />
      </main>
    );
  if (!login) return <main className="page" aria-busy="true" />;

  const current = reveal.shown[placeOf({ kind: "current" })];

  return (
    <main className="page">
      <header className="row spread below-18">
        <div>
          <p className="small">
            <Link to="/logins">Logins</Link>
          </p>
          <h1>{login.title}</h1>
        </div>
        <div className="row">
          {login.deleted_at === null && (
            <>
              {!isSigningIn && (
                <Button onClick={() => signIn(true)}>
                  Sign in <kbd>S</kbd>
                </Button>
              )}
              <Button type="primary" onClick={() => acts.rotate(login)}>
                {rotateSays(login)} <kbd>R</kbd>
              </Button>
              <Button onClick={() => void navigate(`/logins/${loginId}/edit`)}>
                Edit <kbd>E</kbd>
              </Button>
              <Button onClick={() => setAsking(true)}>
                Delete… <kbd>Del</kbd>
              </Button>
            </>
          )}
        </div>
      </header>
      <ProblemNote problem={acts.problem} />
      {login.deleted_at && (
        <p className="problem">
          This login lies in the bin since {dayAndTime(login.deleted_at, now)}.{" "}
          <Link to="/logins/bin">Restore it from there</Link>.
        </p>
      )}
      {isSigningIn && (
        <SignInStrip login={login} acts={acts} reveal={reveal} onClose={() => signIn(false)} />
      )}
      <div className="two">
        <div>
          <dl className="facts">
            <dt>User name</dt>
            <dd>
              {login.user_name || <span className="quiet">none</span>}
              {login.user_name && (
                <Button size="small" onClick={() => void acts.copyUserName(login)}>
                  Copy <kbd>U</kbd>
                </Button>
              )}
            </dd>
            <dt>Secret</dt>
            <dd>
              {!login.has_secret ? (
                <span className="quiet">none yet: sign up to draw one, or edit</span>
              ) : (
                <>
                  {current === undefined ? (
                    <span className="held quiet" aria-label="hidden">
                      {HELD_BACK}
                    </span>
                  ) : (
                    <span className="size-20">
                      <SecretText secret={current} chosen={login.made !== "drawn"} />
                    </span>
                  )}
                  <Button size="small" onClick={() => void acts.copySecret(login)}>
                    Copy <kbd>Y</kbd>
                  </Button>
                  <Button size="small" onClick={() => void toggle({ kind: "current" })}>
                    {current === undefined ? "Show" : "Hide"} <kbd>H</kbd>
                  </Button>
                </>
              )}
            </dd>
            <SecondFactorPart login={login} guarded={acts.guarded} />
            <dt>Address</dt>
            <dd>
              {login.address || <span className="quiet">none</span>}
              {login.address && (
                <Button size="small" onClick={() => acts.openSite(login)}>
                  Open <kbd>O</kbd>
                </Button>
              )}
            </dd>
            {login.secret_field_names.map((name) => (
              <SecretFieldLine
                key={name}
                name={name}
                login={login}
                shown={reveal.shown[placeOf({ kind: "field", name })]}
                onToggle={() => void toggle({ kind: "field", name })}
                guarded={acts.guarded}
              />
            ))}
            {login.fields.map((f) => (
              <Fact key={f.name} name={f.name}>
                {f.value}
              </Fact>
            ))}
            {login.notes && (
              <Fact name="Notes">
                <span className="login-page-span">{login.notes}</span>
              </Fact>
            )}
            <Fact name="In charge">{login.owner || "myself"}</Fact>
            <Fact name="Importance">{login.importance}</Fact>
            {login.folder && <Fact name="Folder">{login.folder}</Fact>}
            {login.tags.length > 0 && (
              <Fact name="Tags">
                {login.tags.map((t) => (
                  <span key={t} className="chip">
                    {t}
                  </span>
                ))}
              </Fact>
            )}
            {login.expires_on && (
              <Fact name="Expires on">
                {day(login.expires_on)}
                {login.has_secret && login.expires_answered && ", answered by a newer secret"}
              </Fact>
            )}
            <Fact name="Reset through">
              {mailbox ? (
                <Link to={`/logins/${mailbox.login_id}`}>{mailbox.title}</Link>
              ) : (
                <span className="quiet">no mailbox named</span>
              )}
            </Fact>
            <Fact name="Added, changed">
              <span className="small quiet">
                {day(login.created_at)}, {dayAndTime(login.changed_at, now)}
              </span>
            </Fact>
          </dl>
          <WhatFalls loginId={loginId} />
        </div>
        <aside className="stack" aria-label="Strength and history">
          {login.has_secret && (
            <section>
              <h2>Guesses it stands</h2>
              <SecretWorth login={login} shown={current ?? null} />
            </section>
          )}
          <OtherTexts login={login} />
          <HistoryPart login={login} reveal={reveal} guarded={acts.guarded} />
        </aside>
      </div>
      <Dialogue
        open={asking}
        title={`Put ${login.title} into the bin?`}
        okText="To the bin"
        cancelText="Keep it"
        onCancel={() => setAsking(false)}
        onOk={() => {
          setAsking(false);
          void acts.remove(login);
        }}
      >
        <p>
          It keeps there for 30 days with {count(login.history.length, "earlier secret")}, and can
          be restored as it is.
        </p>
      </Dialogue>
    </main>
  );
}

function Fact({ name, children }: { name: string; children: React.ReactNode }) {
  return (
    <>
      <dt>{name}</dt>
      <dd>{children}</dd>
    </>
  );
}

function rotateSays(login: Schema["LoginSheet"]): string {
  if (!login.has_secret) return login.rotation_id ? "Go on signing up" : "Sign up";
  return login.rotation_id ? "Go on rotating" : "Rotate";
}

type Guarded = (act: () => Promise<void>) => Promise<void>;

function SecretFieldLine(props: {
  name: string;
  login: Schema["LoginSheet"];
  shown: string | undefined;
  onToggle: () => void;
  guarded: Guarded;
}) {
  const { copy } = useClipboard();
  const { name, login } = props;
  const copyIt = () =>
    props.guarded(async () =>
      copy(name, await fetchSecret(login.login_id, { kind: "field", name }, "copy")),
    );
  return (
    <Fact name={name}>
      {props.shown === undefined ? (
        <span className="held quiet">{HELD_BACK}</span>
      ) : (
        <SecretText secret={props.shown} />
      )}
      <Button size="small" onClick={() => void copyIt()} aria-label={`Copy ${name}`}>
        Copy
      </Button>
      <Button size="small" onClick={props.onToggle} aria-label={`Show or hide ${name}`}>
        {props.shown === undefined ? "Show" : "Hide"}
      </Button>
    </Fact>
  );
}
