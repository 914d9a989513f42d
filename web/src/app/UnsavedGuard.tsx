import { Button } from "antd";
import { useEffect, useState } from "react";
import { useBlocker } from "react-router";
import { Dialogue } from "../shared/Dialogue";
import { noteSaved, onLeaving, throwAway, unsavedForms, type Leaving } from "../shared/unsaved";

/** Above each form that it asks about, also one that was opened after it was asked before. */
const ABOVE_FORMS = 1100;

/** Asks before a form with changes is left: by a link, a key, back, or a new page. */
export function UnsavedGuard() {
  const [asked, setAsked] = useState<Leaving | null>(null);
  const blocker = useBlocker(
    ({ currentLocation, nextLocation }) =>
      currentLocation.pathname !== nextLocation.pathname && unsavedForms().length > 0,
  );
  const blocked: Leaving | null =
    blocker.state === "blocked" ? { forms: unsavedForms(), goOn: () => blocker.proceed() } : null;
  const leaving = blocked ?? asked;

  useEffect(() => onLeaving(setAsked), []);
  useEffect(() => {
    const onUnload = (event: BeforeUnloadEvent) => {
      if (unsavedForms().length > 0) event.preventDefault();
    };
    window.addEventListener("beforeunload", onUnload);
    return () => window.removeEventListener("beforeunload", onUnload);
  }, []);

  const stay = () => {
    setAsked(null);
    if (blocker.state === "blocked") blocker.reset();
  };
  const goOn = (drops: boolean) => {
    if (!leaving) return;
    setAsked(null);
    if (drops) void throwAway(leaving.forms);
    else leaving.forms.forEach(noteSaved);
    leaving.goOn();
  };
  return (
    <Dialogue
      open={leaving !== null}
      title="Leave what is not saved?"
      width={520}
      zIndex={ABOVE_FORMS}
      onCancel={stay}
      footer={
        <>
          <Button onClick={stay}>Stay here</Button>
          <Button onClick={() => goOn(true)}>Throw it away</Button>
          <Button type="primary" onClick={() => goOn(false)}>
            Leave, keep it half-typed
          </Button>
        </>
      }
    >
      <p>
        Half-typed it stays in the vault, sealed, for seven days at most, and is offered when the
        form is opened again.
      </p>
    </Dialogue>
  );
}
