import { Button } from "antd";
import { useEffect, useEffectEvent, useRef, useState } from "react";
import { answer, client, type Schema } from "../../api/client";
import { count, dayAndTime } from "../../domain/moments";
import { useClipboard } from "../../shared/clipboard";
import { ProblemNote } from "../../shared/ProblemNote";
import { useAct } from "../../shared/useAct";
import { useNow } from "../../shared/useNow";
import { Dialogue } from "../../shared/Dialogue";

type Code = Schema["BackupCodeOut"];

/** Codes that open the account once each without its second factor, struck off as they are used. */
export function BackupCodes(props: { login: Schema["LoginSheet"]; onClose: () => void }) {
  const { login, onClose } = props;
  const { copy } = useClipboard();
  const { problem, run } = useAct();
  const [codes, setCodes] = useState<Code[] | null>(null);
  const [adding, setAdding] = useState(false);
  const text = useRef<HTMLTextAreaElement>(null);
  const params = { path: { login_id: login.login_id } };

  const read = async () => {
    const body = { purpose: "reveal" as const };
    const found = await answer(client.POST("/logins/{login_id}/backup-codes", { params, body }));
    setCodes(found);
    setAdding(found.length === 0);
  };
  const onOpen = useEffectEvent(() => void run(read));
  useEffect(() => onOpen(), []);

  const keep = () =>
    run(async () => {
      const body = { text: text.current?.value ?? "" };
      await answer(client.PUT("/logins/{login_id}/backup-codes", { params, body }));
      await read();
    });
  const strike = (place: number, used: boolean) =>
    run(async () => {
      await answer(
        client.POST("/logins/{login_id}/backup-codes/{place}", {
          params: { path: { login_id: login.login_id, place } },
          body: { used },
        }),
      );
      await read();
    });
  const now = useNow();
  const left = codes?.filter((code) => !code.used_at).length ?? 0;

  return (
    <Dialogue open title={`Backup codes of ${login.title}`} footer={null} onCancel={onClose}>
      <div className="stack">
        <ProblemNote problem={problem} />
        {codes && codes.length > 0 && (
          <>
            <p className="small">
              {count(left, "code")} left of {codes.length}.
            </p>
            <table className="plain small">
              <tbody>
                {codes.map((code, place) => (
                  <tr key={place}>
                    <td className="mono size-15">
                      {code.used_at ? <s>{code.code}</s> : code.code}
                    </td>
                    <td className="quiet">
                      {code.used_at && `used ${dayAndTime(code.used_at, now)}`}
                    </td>
                    <td className="right">
                      <span className="row backup-codes-row">
                        {!code.used_at && (
                          <button
                            type="button"
                            className="link"
                            aria-label={`Copy code ${place + 1} and strike it off`}
                            onClick={() =>
                              void run(async () => {
                                await copy(`Backup code of ${login.title}`, code.code);
                                await strike(place, true);
                              })
                            }
                          >
                            copy and strike off
                          </button>
                        )}
                        <button
                          type="button"
                          className="link"
                          aria-label={`${code.used_at ? "Not used after all" : "Strike off"}: code ${place + 1}`}
                          onClick={() => void strike(place, !code.used_at)}
                        >
                          {code.used_at ? "not used after all" : "strike off"}
                        </button>
                      </span>
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          </>
        )}
        {codes && !adding && (
          <div>
            {/* It begins here, not on what strikes a code off. */}
            <button
              type="button"
              className="link small"
              data-begins
              onClick={() => setAdding(true)}
            >
              put others in their place…
            </button>
          </div>
        )}
        {adding && (
          <>
            <label className="field">
              <span>The codes as the site gives them, one a line or between commas</span>
              <textarea
                ref={text}
                rows={5}
                className="secret-input"
                autoComplete="off"
                spellCheck={false}
              />
            </label>
            <div>
              <Button type="primary" onClick={() => void keep()}>
                Keep them
              </Button>
            </div>
          </>
        )}
      </div>
    </Dialogue>
  );
}
