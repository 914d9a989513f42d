import { Button } from "antd";
import { useEffect, useState } from "react";
import { answer, client, type Schema } from "../../api/client";
import { useClipboard } from "../../shared/clipboard";

const LITTLE_S = 8;

/** The second factor's code: shown when asked for, with the seconds left, and the next one when few
 * are left; renewed as its time runs out. */
export function CodeLine(props: {
  login: Schema["LoginSheet"];
  guarded: (act: () => Promise<unknown>) => Promise<void>;
  onCopied?: () => void;
}) {
  const { login, guarded, onCopied } = props;
  const { copy } = useClipboard();
  const [shown, setShown] = useState<Schema["CodeOut"] | null>(null);
  const [leftS, setLeft] = useState(0);

  const fetchCode = (purpose: "reveal" | "copy") =>
    answer(
      client.POST("/logins/{login_id}/code", {
        params: { path: { login_id: login.login_id } },
        body: { purpose },
      }),
    );
  const show = () =>
    guarded(async () => {
      const found = await fetchCode("reveal");
      setShown(found);
      setLeft(found.valid_s);
    });
  const copyIt = () =>
    guarded(async () => {
      await copy(`Code of ${login.title}`, (await fetchCode("copy")).code);
      onCopied?.();
    });

  useEffect(() => setShown(null), [login.login_id]);
  useEffect(() => {
    if (!shown) return;
    const tick = window.setTimeout(() => {
      if (leftS > 1) setLeft(leftS - 1);
      else setShown(null);
    }, 1_000);
    return () => window.clearTimeout(tick);
  }, [shown, leftS]);

  return (
    <>
      {shown ? (
        <span>
          <span className="mono size-20">{grouped(shown.code)}</span>{" "}
          <span className="small quiet">for {leftS} s more</span>
          {leftS <= LITTLE_S && (
            <span className="small code-line-small">
              little time: the next is <span className="mono">{grouped(shown.next_code)}</span>
            </span>
          )}
        </span>
      ) : (
        <span className="quiet">codes are made here</span>
      )}
      <Button size="small" onClick={() => void copyIt()}>
        Copy code <kbd>C</kbd>
      </Button>
      <Button size="small" onClick={() => (shown ? setShown(null) : void show())}>
        {shown ? "Hide the code" : "Show the code"}
      </Button>
    </>
  );
}

const grouped = (code: string) => code.replace(/(\d{3})(?=\d)/g, "$1\u2009");
