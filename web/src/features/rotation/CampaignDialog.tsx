import { useQuery } from "@tanstack/react-query";
import { Button, Checkbox, Segmented, Select } from "antd";
import { useMemo, useState } from "react";
import { answer, client } from "../../api/client";
import { queries } from "../../api/queries";
import {
  choicesBy,
  loginsOf,
  WAYS,
  WAY_LABELS,
  type Choice,
  type Way,
} from "../../domain/campaign";
import { count } from "../../domain/moments";
import { haystack, matches } from "../../domain/search";
import { ProblemNote } from "../../shared/ProblemNote";
import { useAct } from "../../shared/useAct";
import { Dialogue } from "../../shared/Dialogue";

const SHOWN = 200;

/** Which logins a campaign is to rotate: by finding, reuse group, site, what falls with one, or hand. */
export function CampaignDialog({ onClose }: { onClose: () => void }) {
  const [way, setWay] = useState<Way>("finding");
  const [picked, setPicked] = useState<string | null>(null);
  const [byHand, setByHand] = useState<string[]>([]);
  const [typed, setTyped] = useState("");
  const worklist = useQuery(queries.worklist()).data;
  const map = useQuery(queries.reach()).data;
  const logins = useQuery(queries.logins()).data?.logins;
  const { problem, busy, run } = useAct();

  const choices: Choice[] = useMemo(
    () => choicesBy(way, worklist?.findings ?? [], map ?? null, logins ?? []),
    [way, worklist, map, logins],
  );
  const falls = useQuery({
    ...queries.reachOf(picked ?? ""),
    enabled: way === "reach" && picked !== null,
  }).data;
  const chosen = useMemo(() => {
    let wanted = choices.find((c) => c.id === picked)?.login_ids ?? [];
    if (way === "hand") wanted = byHand;
    if (way === "reach" && picked && falls)
      wanted = [picked, ...falls.map((fall) => fall.login_id)];
    return loginsOf(wanted, logins ?? []);
  }, [way, byHand, choices, picked, falls, logins]);
  const found = useMemo(
    () => (logins ?? []).filter((l) => l.has_secret && matches(haystack(l), typed)),
    [logins, typed],
  );
  const begin = () =>
    run(async () => {
      const body = { login_ids: chosen.map((login) => login.login_id) };
      await answer(client.POST("/campaigns", { body }));
      onClose();
    });
  const turn = (login_id: string, on: boolean) =>
    setByHand((now) => (on ? [...now, login_id] : now.filter((one) => one !== login_id)));

  return (
    <Dialogue open width={640} title="A new campaign" footer={null} onCancel={onClose}>
      <div className="stack">
        <Segmented<Way>
          aria-label="Choose the logins by"
          value={way}
          onChange={(value) => {
            setWay(value);
            setPicked(null);
          }}
          options={WAYS.map((value) => ({ value, label: WAY_LABELS[value] }))}
        />
        {way === "hand" ? (
          <>
            <input
              className="secret-input in-face"
              aria-label="Find logins"
              placeholder="Title, user name, address, tag…"
              autoComplete="off"
              spellCheck={false}
              onChange={(event) => setTyped(event.target.value)}
            />
            <div role="group" aria-label="Logins" tabIndex={0} className="campaign-dialog-logins">
              {found.slice(0, SHOWN).map((login) => (
                <div key={login.login_id}>
                  <Checkbox
                    checked={byHand.includes(login.login_id)}
                    onChange={(event) => turn(login.login_id, event.target.checked)}
                  >
                    {login.title} <span className="small quiet">{login.user_name}</span>
                  </Checkbox>
                </div>
              ))}
              {found.length > SHOWN && (
                <p className="small quiet">and {count(found.length - SHOWN, "more")}: find them</p>
              )}
            </div>
          </>
        ) : (
          <Select
            aria-label={WAY_LABELS[way]}
            placeholder={choices.length ? "choose one" : "there is none"}
            value={picked}
            showSearch={{ optionFilterProp: "label" }}
            onChange={setPicked}
            options={choices.map((one) => ({
              value: one.id,
              label: `${one.label} (${one.count.toLocaleString("en")})`,
            }))}
          />
        )}
        <p className="small">
          {chosen.length === 0 ? (
            <span className="quiet">No login chosen yet.</span>
          ) : (
            <>
              <b>{count(chosen.length, "login")}</b>: mailboxes that can reset others come first.
              Nothing is changed yet.{" "}
              <span className="quiet">
                {chosen
                  .slice(0, 8)
                  .map((login) => login.title)
                  .join(", ")}
                {chosen.length > 8 && " …"}
              </span>
            </>
          )}
        </p>
        <ProblemNote problem={problem} />
        <div>
          <Button
            type="primary"
            disabled={chosen.length === 0}
            loading={busy}
            onClick={() => void begin()}
          >
            Plan it
          </Button>
        </div>
      </div>
    </Dialogue>
  );
}
