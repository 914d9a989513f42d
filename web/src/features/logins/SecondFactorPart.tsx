import { Button } from "antd";
import { useState } from "react";
import { useLocation } from "react-router";
import { answer, client, type Schema } from "../../api/client";
import { makesCodes } from "../../domain/secondFactor";
import { BackupCodes } from "./BackupCodes";
import { CodeLine } from "./CodeLine";
import { SetUpDialog } from "./SetUpDialog";

type Guarded = (act: () => Promise<unknown>) => Promise<void>;

/** A login's second factor: its code, its set-up until the site accepted one, its backup codes. */
export function SecondFactorPart({
  login,
  guarded,
}: {
  login: Schema["LoginSheet"];
  guarded: Guarded;
}) {
  // From the worklist one comes to set it up.
  const { state } = useLocation() as { state: { setUp?: boolean } | null };
  const [settingUp, setSettingUp] = useState(Boolean(state?.setUp) && !makesCodes(login));
  const [listing, setListing] = useState(false);
  const params = { path: { login_id: login.login_id } };
  const accepted = () =>
    guarded(() => answer(client.POST("/logins/{login_id}/second-factor/accepted", { params })));
  return (
    <>
      <dt>Second factor</dt>
      <dd>
        {makesCodes(login) ? (
          <CodeLine login={login} guarded={guarded} />
        ) : (
          <span className="quiet">
            {login.second_factor === "elsewhere" ? "kept elsewhere" : "none recorded"}
          </span>
        )}
        {login.second_factor === "setting_up" && (
          <span className="small whole-line">
            <b>Being set up:</b> give the site a code.{" "}
            <Button size="small" onClick={() => void accepted()}>
              The site accepted it
            </Button>
          </span>
        )}
        <span className="small row whole-line">
          <button type="button" className="link" onClick={() => setSettingUp(true)}>
            {makesCodes(login) ? "set up anew…" : "set up…"}
          </button>
          <button type="button" className="link" onClick={() => setListing(true)}>
            backup codes…
          </button>
        </span>
        {settingUp && <SetUpDialog login={login} onClose={() => setSettingUp(false)} />}
        {listing && <BackupCodes login={login} onClose={() => setListing(false)} />}
      </dd>
    </>
  );
}
