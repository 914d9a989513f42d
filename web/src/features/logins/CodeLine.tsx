import { Button } from "antd";
import { useEffect, useState } from "react";
import { answer, client, type Schema } from "../../api/client";
import { useClipboard } from "../../shared/clipboard";

/** The second factor's code: shown when asked for, renewed as its time runs out. */
export function CodeLine(props: {
  login: Schema["LoginSheet"];
  guarded: (act: () => Promise<unknown>) => Promise<void>;
}) {
  const { login, guarded } = props;
  const { copy } = useClipboard();
  const [shown, setShown] = useState<Schema["CodeOut"] | null>(null);
  const [left_s, setLeft] = useState(0);

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

  useEffect(() => setShown(null), [login.login_id]);
  useEffect(() => {
    if (!shown) return;
    const tick = window.setTimeout(() => {
      if (left_s > 1) setLeft(left_s - 1);
      else setShown(null);
    }, 1_000);
    return () => window.clearTimeout(tick);
  }, [shown, left_s]);

  return (
    <>
      {shown ? (
        <span>
          <span className="mono" style={{ fontSize: 20 }}>
            {shown.code.replace(/(\d{3})(?=\d)/g, "$1\u2009")}
          </span>{" "}
          <span className="small quiet">for {left_s} s more</span>
        </span>
      ) : (
        <span className="quiet">codes are made here</span>
      )}
      <Button
        size="small"
        onClick={() =>
          void guarded(async () => copy(`Code of ${login.title}`, (await fetchCode("copy")).code))
        }
      >
        Copy code <kbd>C</kbd>
      </Button>
      <Button size="small" onClick={() => (shown ? setShown(null) : void show())}>
        {shown ? "Hold back the code" : "Show the code"}
      </Button>
    </>
  );
}
