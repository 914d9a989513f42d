import { Button } from "antd";
import { useState, type ReactNode } from "react";
import type { Schema } from "../../api/client";
import { makesCodes } from "../../domain/secondFactor";
import { SecretText } from "../../shared/SecretText";
import { SpellOut } from "../../shared/SpellOut";
import { StripOrPage, useStripWindow } from "../../shared/StripWindow";
import { useKeys } from "../../shared/useKeys";
import { CodeLine } from "./CodeLine";
import type { useLoginActs } from "./useLoginActs";
import { fetchSecret, placeOf, type useReveal } from "./useReveal";

const CURRENT = { kind: "current" } as const;

type Props = {
  login: Schema["LoginSheet"];
  acts: ReturnType<typeof useLoginActs>;
  reveal: ReturnType<typeof useReveal>;
  onClose: () => void;
};

/** The everyday sign-in: open the site, user name, secret, code, in one row above the login's
 * sheet, or in a small window beside the site's own. */
export function SignInStrip({ login, acts, reveal, onClose }: Props) {
  const beside = useStripWindow();
  const [done, setDone] = useState(0);
  const [spelling, setSpelling] = useState<string | null>(null);
  const coded = makesCodes(login);

  const act = (step: number, what: () => unknown) => {
    setDone(Math.max(done, step));
    void what();
  };
  const open = () => login.address && act(1, () => acts.openSite(login));
  const copyName = () => login.user_name && act(2, () => acts.copyUserName(login));
  const copySecret = () => login.has_secret && act(3, () => acts.copySecret(login));
  const copyCode = () => coded && act(4, () => acts.copyCode(login));
  const toggle = () => acts.guarded(() => reveal.toggle(CURRENT));
  const spellOut = () =>
    acts.guarded(async () => setSpelling(await fetchSecret(login.login_id, CURRENT, "reveal")));
  const toWindow = () => (beside.strip ? beside.close() : void beside.open());

  useKeys({
    Escape: onClose,
    s: onClose,
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
    w: toWindow,
  });

  const shown = reveal.shown[placeOf(CURRENT)];
  const size = beside.strip ? "middle" : "small";
  const looks = (step: number) =>
    ({ size, type: done === step - 1 ? "primary" : "default" }) as const;
  const steps = (
    <>
      <SignInStep no={1} done={done} name="Open the site" held={login.address}>
        <Button {...looks(1)} onClick={open}>
          Open <kbd>1</kbd>
        </Button>
      </SignInStep>
      <SignInStep no={2} done={done} name="Paste the user name" held={login.user_name}>
        <Button {...looks(2)} onClick={copyName}>
          Copy name <kbd>2</kbd>
        </Button>
      </SignInStep>
      <SignInStep
        no={3}
        done={done}
        name="Paste the secret"
        held={
          login.has_secret &&
          (shown === undefined ? (
            <span className="held">•••• •••• ••••</span>
          ) : (
            <SecretText secret={shown} chosen={login.made !== "drawn"} />
          ))
        }
      >
        <Button {...looks(3)} onClick={copySecret}>
          Copy secret <kbd>3</kbd>
        </Button>
        <Button size={size} onClick={() => void toggle()}>
          {shown === undefined ? "Show" : "Hide"} <kbd>H</kbd>
        </Button>
        <Button size={size} onClick={() => void spellOut()}>
          Spell it out <kbd>P</kbd>
        </Button>
      </SignInStep>
      {coded && (
        <SignInStep no={4} done={done} name="Paste the code" held="">
          <CodeLine login={login} guarded={acts.guarded} onCopied={() => setDone(4)} />
        </SignInStep>
      )}
    </>
  );

  return (
    <section className="sign-in" aria-label="Sign in">
      <StripOrPage beside={beside} title="Sign in" within>
        {beside.strip ? (
          <div className="strip-steps">
            <h1>{login.title}</h1>
            <div>
              <Button size="small" onClick={beside.close}>
                Back to the page <kbd>W</kbd>
              </Button>
            </div>
            {steps}
          </div>
        ) : (
          <>
            <div className="row spread">
              <h2>Sign in</h2>
              <div className="row">
                <Button size="small" onClick={toWindow}>
                  Beside the site <kbd>W</kbd>
                </Button>
                <Button size="small" onClick={onClose}>
                  Put away <kbd>S</kbd>
                </Button>
              </div>
            </div>
            <div className="sign-in-row">{steps}</div>
          </>
        )}
      </StripOrPage>
      {spelling !== null && (
        <SpellOut secret={spelling} strip={beside.strip} onClose={() => setSpelling(null)} />
      )}
    </section>
  );
}

/** One thing to do at the site; what the login does not hold is said, and has no act. */
function SignInStep(props: {
  no: number;
  done: number;
  name: string;
  held: ReactNode;
  children: ReactNode;
}) {
  const { no, done, name, held, children } = props;
  const phase = done >= no ? "step done" : done === no - 1 ? "step now" : "step";
  const isThere = no === 4 || Boolean(held);
  return (
    <section className={phase} aria-label={`Step ${no}: ${name}`}>
      <span className="no" aria-hidden="true">
        {no}
      </span>
      <div>
        <h3>{name}</h3>
        {no < 4 && (
          <p className="small sign-in-held">
            {isThere ? held : <span className="quiet">none stored</span>}
          </p>
        )}
        {isThere && <div className="acts">{children}</div>}
      </div>
    </section>
  );
}
