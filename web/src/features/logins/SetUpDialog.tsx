import { Button } from "antd";
import { useEffect, useEffectEvent, useRef, useState } from "react";
import { answer, client, sendPicture, type Schema } from "../../api/client";
import { ProblemNote } from "../../shared/ProblemNote";
import { SecretInput } from "../../shared/SecretInput";
import { useAct } from "../../shared/useAct";
import { FilePicker } from "../../shared/FilePicker";
import { Dialogue } from "../../shared/Dialogue";

type Props = { login: Schema["LoginSheet"]; onClose: () => void };

/** The key of a login's codes: from the site's QR picture (file, paste or drag), or typed. */
export function SetUpDialog({ login, onClose }: Props) {
  const { problem, busy, run } = useAct();
  const key = useRef<HTMLInputElement>(null);
  const file = useRef<HTMLInputElement>(null);
  const [over, setOver] = useState(false);
  const params = { path: { login_id: login.login_id } };

  const take = (picture: Blob | null | undefined) =>
    picture &&
    run(async () => {
      await sendPicture(login.login_id, picture);
      onClose();
    });
  const typed = () =>
    run(async () => {
      const body = { code_key: key.current?.value ?? "" };
      await answer(client.POST("/logins/{login_id}/second-factor", { params, body }));
      onClose();
    });
  const onPicture = useEffectEvent((picture: File) => void take(picture));
  useEffect(() => {
    const onPaste = (event: ClipboardEvent) => {
      const picture = [...(event.clipboardData?.files ?? [])].find((f) =>
        f.type.startsWith("image/"),
      );
      if (picture) {
        event.preventDefault();
        onPicture(picture);
      }
    };
    document.addEventListener("paste", onPaste);
    return () => document.removeEventListener("paste", onPaste);
  }, []);

  return (
    <Dialogue open title={`Codes of ${login.title}`} footer={null} onCancel={onClose}>
      <div className="stack">
        <p className="small">
          The site shows a QR picture, or a key in letters. The key is sealed here, and in force
          once the site accepted a code of it.
        </p>
        <div
          className={over ? "drop over" : "drop"}
          onDragOver={(event) => {
            event.preventDefault();
            setOver(true);
          }}
          onDragLeave={() => setOver(false)}
          onDrop={(event) => {
            event.preventDefault();
            setOver(false);
            void take(event.dataTransfer.files[0]);
          }}
        >
          <FilePicker
            ref={file}
            label="QR picture"
            accept="image/*"
            onFile={(picture) => void take(picture)}
          />
          Drop the picture here, paste it, or{" "}
          <Button size="small" loading={busy} onClick={() => file.current?.click()}>
            choose a file
          </Button>
        </div>
        <form
          onSubmit={(event) => {
            event.preventDefault();
            void typed();
          }}
        >
          <SecretInput ref={key} label="Or its key, or its otpauth address" />
          <div className="above-10">
            <Button type="primary" htmlType="submit" disabled={busy}>
              Keep this key
            </Button>
          </div>
        </form>
        <ProblemNote problem={problem} />
      </div>
    </Dialogue>
  );
}
