import { useQuery, useQueryClient } from "@tanstack/react-query";
import { Button, InputNumber, Select, Slider, Switch } from "antd";
import { useEffect, useMemo, useState } from "react";
import { answer, client } from "../../api/client";
import { queries } from "../../api/queries";
import { classLabel, policySentence, power, withClass, type Policy } from "../../domain/policy";
import { useClipboard } from "../../shared/clipboard";
import { LargeRuler } from "../../shared/GuessRuler";
import { ProblemNote } from "../../shared/ProblemNote";
import { MarkLegend, SecretText } from "../../shared/SecretText";
import { useDraw } from "../../shared/useDraw";
import { useKeys } from "../../shared/useKeys";
import { LooseEnds } from "./LooseEnds";
import { PlaceDialog } from "./PlaceDialog";

const NO_SITE = "none";
const WISHED_LENGTH = 20;

export default function GeneratePage() {
  const queryClient = useQueryClient();
  const library = useQuery(queries.policies());
  const { copy } = useClipboard();
  const [site, setSite] = useState(NO_SITE);
  const [policy, setPolicy] = useState<Policy | null>(null);
  const [length, setLength] = useState(WISHED_LENGTH);
  const [placing, setPlacing] = useState<string | null>(null);
  const [kept, setKept] = useState<string | null>(null);
  const { drawn, problem, draw, back, setProblem } = useDraw();

  const chosen = library.data?.policies.find((p) => p.policy_id === site);
  const base = useMemo(
    () => (chosen?.policy ?? library.data?.default) as Policy | undefined,
    [chosen, library.data],
  );

  const change = (next: Policy, nextLength: number, passing = true) => {
    const held = Math.max(next.min_length, Math.min(next.max_length, nextLength));
    setPolicy(next);
    setLength(held);
    void draw({ length: held, policy: next }, passing);
  };
  useEffect(() => {
    if (base && policy === null) change(base, WISHED_LENGTH, false);
  });

  const pick = (id: string) => {
    const found = library.data?.policies.find((p) => p.policy_id === id)?.policy;
    setSite(id);
    const next = (found ?? library.data?.default) as Policy | undefined;
    if (next) change(next, WISHED_LENGTH, false);
  };

  const keep = async () => {
    if (!drawn) return null;
    const loose = await answer(
      client.POST("/draws/{draw_id}/keep", {
        params: { path: { draw_id: drawn.draw_id } },
        body: { address: chosen?.domains[0] ?? "" },
      }),
    );
    setKept(drawn.draw_id);
    await queryClient.invalidateQueries({ queryKey: ["loose-ends"] });
    return loose.loose_end_id;
  };
  const copyIt = async () => {
    if (!drawn) return;
    try {
      await keep();
      await copy(chosen ? `New secret for ${chosen.name}` : "New secret", drawn.secret);
    } catch (error) {
      setProblem(error);
    }
  };
  const place = async () => {
    try {
      setPlacing(await keep());
    } catch (error) {
      setProblem(error);
    }
  };
  const again = () => policy && void draw({ length, policy });

  useKeys({
    y: () => void copyIt(),
    " ": again,
    ArrowLeft: () => void back(),
    p: () => void place(),
  });

  if (library.error)
    return (
      <main className="page">
        <ProblemNote problem={library.error} />
      </main>
    );
  if (!library.data || !policy || !base) return <main className="page" aria-busy="true" />;

  const size = drawn ? power(drawn.space_size_log10) : null;
  return (
    <div style={{ display: "flex", flexDirection: "column", minHeight: "100%" }}>
      <main className="generate" style={{ flex: 1 }}>
        <section className="bench" aria-label="Site policy">
          <label className="field">
            <span>For</span>
            <Select
              value={site}
              onChange={pick}
              aria-label="For which site"
              options={[
                { value: NO_SITE, label: "no site in particular" },
                ...library.data.policies.map((p) => ({ value: p.policy_id, label: p.name })),
              ]}
            />
          </label>
          <div>
            <p className="small quiet">Site policy</p>
            <p>{policySentence(policy)}</p>
          </div>
          <div className="row spread" style={{ marginTop: 6 }}>
            <span className="small quiet">Length</span>
            <InputNumber
              aria-label="Length in characters"
              size="small"
              min={policy.min_length}
              max={policy.max_length}
              value={length}
              onChange={(value) => typeof value === "number" && change(policy, value)}
              style={{ width: 68 }}
            />
          </div>
          <Slider
            min={policy.min_length}
            max={Math.min(policy.max_length, 64)}
            value={length}
            onChange={(value) => change(policy, value)}
            ariaLabelForHandle="Length in characters"
            tooltip={{ open: false }}
            style={{ margin: "0 6px 4px" }}
          />
          {base.classes.map(({ name }) => {
            const label = classLabel(name);
            const standing = policy.classes.find((c) => c.name === name);
            const own = base.classes.find((c) => c.name === name) ?? null;
            return (
              <div className="line" key={name}>
                <span className="row" style={{ gap: 8 }}>
                  <Switch
                    size="small"
                    aria-label={label}
                    checked={standing !== undefined}
                    onChange={(on) => change(withClass(policy, name, on ? own : null), length)}
                  />
                  {label}
                </span>
                {standing && (
                  <span className="row small" style={{ gap: 6 }}>
                    at least
                    <InputNumber
                      size="small"
                      aria-label={`At least so many of ${label.toLowerCase()}`}
                      min={0}
                      max={policy.max_length}
                      value={standing.minimum}
                      style={{ width: 56 }}
                      onChange={(value) =>
                        typeof value === "number" &&
                        change(withClass(policy, name, { ...standing, minimum: value }), length)
                      }
                    />
                  </span>
                )}
              </div>
            );
          })}
          <div className="line">
            <span className="row" style={{ gap: 8 }}>
              <Switch
                size="small"
                aria-label="Leave out look-alikes"
                checked={policy.excluded !== ""}
                onChange={(on) =>
                  change({ ...policy, excluded: on ? library.data.look_alikes : "" }, length)
                }
              />
              Leave out look-alikes
            </span>
          </div>
        </section>
        <section className="drawn" aria-label="The drawn secret">
          <div style={{ minHeight: 58 }} aria-live="polite">
            {drawn && <SecretText secret={drawn.secret} big />}
          </div>
          <MarkLegend />
          <ProblemNote problem={problem} />
          <div className="row">
            <Button type="primary" onClick={() => void copyIt()} disabled={!drawn}>
              Copy <kbd>Y</kbd>
            </Button>
            <Button onClick={again}>
              Draw again <kbd>Space</kbd>
            </Button>
            <Button onClick={() => void back()} disabled={!drawn}>
              Earlier draw <kbd>←</kbd>
            </Button>
            <Button onClick={() => void place()} disabled={!drawn}>
              Place in a login… <kbd>P</kbd>
            </Button>
            <span className="small quiet">
              {drawn && kept === drawn.draw_id
                ? "kept under Loose ends until you place it"
                : "copying keeps it under Loose ends until you place it"}
            </span>
          </div>
          <div className="row" style={{ alignItems: "baseline", gap: 14 }}>
            <b style={{ fontSize: 21 }}>{drawn ? `${drawn.entropy_bits} bits` : "no secret"}</b>
            {size && (
              <span>
                one of {size.mantissa} × 10<sup>{size.exponent}</sup> equally likely, by counting
                every string that this policy allows at this length
              </span>
            )}
          </div>
          <div style={{ maxWidth: 780 }}>
            <LargeRuler log10={drawn ? drawn.space_size_log10 : null} />
          </div>
        </section>
      </main>
      <LooseEnds onPlace={setPlacing} />
      {placing && <PlaceDialog looseEndId={placing} onClose={() => setPlacing(null)} />}
    </div>
  );
}
