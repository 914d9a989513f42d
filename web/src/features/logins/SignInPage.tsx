import { useQuery } from "@tanstack/react-query";
import { Button } from "antd";
import { useState } from "react";
import { useNavigate, useParams } from "react-router";
import { queries } from "../../api/queries";
import { makesCodes } from "../../domain/secondFactor";
import { ProblemNote } from "../../shared/ProblemNote";
import { SecretText } from "../../shared/SecretText";
import { SpellOut } from "../../shared/SpellOut";
import { StripOrPage, useStripWindow } from "../../shared/StripWindow";
import { useKeys } from "../../shared/useKeys";
import { CodeLine } from "./CodeLine";
import { useLoginActs } from "./useLoginActs";
import { fetchSecret, placeOf, useReveal } from "./useReveal";

const CURRENT = { kind: "current" } as const;

/** The everyday sign-in beside the site: open it, user name, secret, code, one after the other. */
export default function SignInPage() {
  const { loginId = "" } = useParams();
  const navigate = useNavigate();
  const { data: login, error } = useQuery(queries.login(loginId));
  const acts = useLoginActs();
  const reveal = useReveal(loginId);
  const beside = useStripWindow();
  const [done, setDone] = useState(0);
  const [spelling, setSpelling] = useState<string | null>(null);
  const coded = login ? makesCodes(login) : false;

  const act = (step: number, what: () => unknown) => {
    setDone(Math.max(done, step));
    void what();
  };
  const open = () => login && act(1, () => acts.openSite(login));
  const copyName = () => login?.user_name && act(2, () => acts.copyUserName(login));
  const copySecret = () => login?.has_secret && act(3, () => acts.copySecret(login));
  const copyCode = () => login && coded && act(4, () => acts.copyCode(login));
  const toggle = () => acts.guarded(() => reveal.toggle(CURRENT));
  const spellOut = () =>
    acts.guarded(async () => setSpelling(await fetchSecret(loginId, CURRENT, "reveal")));

  useKeys(
    {
      Escape: () => void navigate(`/logins/${loginId}`),
      "1": open,
      "2": copyName,
      "3": copySecret,
      "4": copyCode,
      o: open,
      u: copyName,
      y: copySecret,
      c: copyCode,
      h: () => void toggle(),
      p: () => void spellOut(),
      w: () => (beside.strip ? beside.close() : void beside.open()),
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
  const shown = reveal.shown[placeOf(CURRENT)];
  const kind = (step: number) => (done === step - 1 ? "primary" : "default");
  const phase = (step: number) =>
    done >= step ? "step done" : kind(step) === "primary" ? "step now" : "step";

  const steps = (
    <div className="strip-steps">
      <header className="row spread">
        <h1>{login.title}</h1>
        {!beside.strip && (
          <span className="small quiet">
            sign-in <kbd>Esc</kbd> back
          </span>
        )}
      </header>
      <div className="row sign-in-page-row">
        <Button size="small" onClick={beside.strip ? beside.close : () => void beside.open()}>
          {beside.strip ? "Back to the page" : "Beside the site"} <kbd>W</kbd>
        </Button>
      </div>
      <ProblemNote problem={acts.problem} />
      <section className={phase(1)} aria-label="Step 1: open the site">
        <span className="no" aria-hidden="true">
          1
        </span>
        <div>
          <h2>Open the site</h2>
          <p className="small quiet">{login.address || "no address stored"}</p>
          {login.address && (
            <div className="acts">
              <Button type={kind(1)} onClick={open}>
                Open the site <kbd>1</kbd>
              </Button>
            </div>
          )}
        </div>
      </section>
      <section className={phase(2)} aria-label="Step 2: the user name">
        <span className="no" aria-hidden="true">
          2
        </span>
        <div>
          <h2>Paste the user name</h2>
          <p className="small">{login.user_name || <span className="quiet">none stored</span>}</p>
          {login.user_name && (
            <div className="acts">
              <Button type={kind(2)} onClick={copyName}>
                Copy name <kbd>2</kbd>
              </Button>
            </div>
          )}
        </div>
      </section>
      <section className={phase(3)} aria-label="Step 3: the secret">
        <span className="no" aria-hidden="true">
          3
        </span>
        <div>
          <h2>Paste the secret</h2>
          {login.has_secret ? (
            <>
              <p className="sign-in-page-p">
                {shown === undefined ? (
                  <span className="held">•••• •••• ••••</span>
                ) : (
                  <SecretText secret={shown} chosen={login.made !== "drawn"} />
                )}
              </p>
              <div className="acts">
                <Button type={kind(3)} onClick={copySecret}>
                  Copy secret <kbd>3</kbd>
                </Button>
                <Button onClick={() => void toggle()}>
                  {shown === undefined ? "Show" : "Hold back"} <kbd>H</kbd>
                </Button>
                <Button onClick={() => void spellOut()}>
                  Spell it out <kbd>P</kbd>
                </Button>
              </div>
            </>
          ) : (
            <p className="small quiet">none yet</p>
          )}
        </div>
      </section>
      {coded && (
        <section className={phase(4)} aria-label="Step 4: the code">
          <span className="no" aria-hidden="true">
            4
          </span>
          <div>
            <h2>Paste the code</h2>
            <div className="acts centred">
              <CodeLine login={login} guarded={acts.guarded} onCopied={() => setDone(4)} />
            </div>
          </div>
        </section>
      )}
    </div>
  );

  return (
    <main className="page">
      <div className="wide-430">
        <StripOrPage beside={beside} title={login.title}>
          {steps}
        </StripOrPage>
      </div>
      {spelling !== null && (
        <SpellOut secret={spelling} strip={beside.strip} onClose={() => setSpelling(null)} />
      )}
    </main>
  );
}
