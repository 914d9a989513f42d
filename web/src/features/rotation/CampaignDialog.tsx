import { useQueries, useQuery } from "@tanstack/react-query";
import { Checkbox, Segmented, Select } from "antd";
import { useDeferredValue, useState } from "react";
import { answer, client, type Schema } from "../../api/client";
import { queries } from "../../api/queries";
import { FINDING_LABELS, type FindingKind } from "../../domain/findings";
import { count } from "../../domain/moments";
import { Dialogue } from "../../shared/Dialogue";
import { ProblemNote } from "../../shared/ProblemNote";
import { useAct } from "../../shared/useAct";

type Way = Schema["Way"] | "hand";
const WAY_LABELS: Record<Way, string> = {
  finding: "By finding",
  group: "By reuse group",
  site: "By site",
  reach: "By what falls with one",
  hand: "By hand",
};
const WAYS = (Object.keys(WAY_LABELS) as Way[]).map((value) => ({
  value,
  label: WAY_LABELS[value],
}));
const ASKED: Schema["Way"][] = ["finding", "group", "site", "reach"];
const BY_HAND_SHOWN = 50;
const TITLES_SHOWN = 8;

type Chosen = Schema["ChosenOut"];
const NONE: Chosen = { login_ids: [], titles: [] };

/** Which logins a campaign is to rotate: by finding, reuse group, site, what falls with one, or hand. */
export function CampaignDialog({ onClose }: { onClose: () => void }) {
  const [way, setWay] = useState<Way>("finding");
  const [chosen, setChosen] = useState<Chosen>(NONE);
  const { problem, busy, run } = useAct();
  // Each way's choices are asked for at once, so that they are there when it is taken.
  useQueries({ queries: ASKED.map((one) => queries.campaignChoices(one, "")) });
  const begin = () =>
    run(async () => {
      await answer(client.POST("/campaigns", { body: { login_ids: chosen.login_ids } }));
      onClose();
    });
  return (
    <Dialogue
      open
      endsByEnter
      width={640}
      title="A new campaign"
      okText="Plan it"
      okButtonProps={{ disabled: chosen.login_ids.length === 0, loading: busy }}
      cancelText="Cancel"
      onCancel={onClose}
      onOk={() => void begin()}
    >
      <div className="stack">
        <Segmented<Way>
          aria-label="Choose the logins by"
          value={way}
          onChange={(value) => {
            setWay(value);
            setChosen(NONE);
          }}
          options={WAYS}
        />
        {way === "hand" ? (
          <ByHand onChosen={setChosen} />
        ) : (
          <ByWay key={way} {...{ way, setChosen }} />
        )}
        <p className="small" role="status">
          {chosen.login_ids.length === 0 ? (
            <span className="quiet">No login chosen yet.</span>
          ) : (
            <>
              <b>{count(chosen.login_ids.length, "login")}</b>: mailboxes that can reset others come
              first. Nothing is changed yet.{" "}
              <span className="quiet">
                {chosen.titles.slice(0, TITLES_SHOWN).join(", ")}
                {chosen.login_ids.length > TITLES_SHOWN && " …"}
              </span>
            </>
          )}
        </p>
        <ProblemNote problem={problem} />
      </div>
    </Dialogue>
  );
}

type ByWayProps = { way: Schema["Way"]; setChosen: (chosen: Chosen) => void };

function ByWay({ way, setChosen }: ByWayProps) {
  const [typed, setTyped] = useState("");
  const [picked, setPicked] = useState<string | null>(null);
  const found = useQuery(queries.campaignChoices(way, useDeferredValue(typed))).data;
  const { problem, run } = useAct();
  const pick = (choice_id: string) =>
    run(async () => {
      setPicked(choice_id);
      setTyped("");
      setChosen(await answer(client.POST("/campaigns/chosen", { body: { way, choice_id } })));
    });
  return (
    <>
      <Select
        aria-label={WAY_LABELS[way]}
        placeholder={found && found.total === 0 && !typed ? "there is none" : "choose one"}
        value={picked}
        showSearch={{ filterOption: false, onSearch: setTyped }}
        onChange={(choice_id) => void pick(choice_id)}
        options={found?.choices.map((one) => ({
          value: one.choice_id,
          label: `${labelOf(way, one)} (${one.count.toLocaleString("en")})`,
        }))}
      />
      {found && found.total > found.choices.length && (
        <p className="small quiet">
          The largest {found.choices.length} of {found.total.toLocaleString("en")} stand here: type
          to find others.
        </p>
      )}
      <ProblemNote problem={problem} />
    </>
  );
}

function ByHand({ onChosen }: { onChosen: (chosen: Chosen) => void }) {
  const [typed, setTyped] = useState("");
  const [picked, setPicked] = useState(new Map<string, string>());
  const found = useQuery(queries.foundLogins(useDeferredValue(typed), BY_HAND_SHOWN)).data ?? [];
  const turn = (login: Schema["FoundLogin"], on: boolean) => {
    const fresh = new Map(picked);
    if (on) fresh.set(login.login_id, login.title);
    else fresh.delete(login.login_id);
    setPicked(fresh);
    onChosen({ login_ids: [...fresh.keys()], titles: [...fresh.values()] });
  };
  return (
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
        {found.map((login) => (
          <div key={login.login_id}>
            <Checkbox
              checked={picked.has(login.login_id)}
              disabled={!login.has_secret}
              onChange={(event) => turn(login, event.target.checked)}
            >
              {login.title}{" "}
              <span className="small quiet">
                {login.has_secret ? login.user_name : "has no secret to rotate"}
              </span>
            </Checkbox>
          </div>
        ))}
        {found.length === BY_HAND_SHOWN && (
          <p className="small quiet">
            The nearest {BY_HAND_SHOWN} stand here: type to find others.
          </p>
        )}
      </div>
    </>
  );
}

function labelOf(way: Schema["Way"], one: Schema["ChoiceOut"]): string {
  return way === "finding" ? FINDING_LABELS[one.choice_id as FindingKind] : one.label;
}
