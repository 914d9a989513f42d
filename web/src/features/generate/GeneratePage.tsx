import { useQuery, useQueryClient } from "@tanstack/react-query";
import { Button } from "antd";
import { useCallback, useEffect, useMemo, useState } from "react";
import { answer, client } from "../../api/client";
import { queries } from "../../api/queries";
import { power, type Policy } from "../../domain/policy";
import { useClipboard } from "../../shared/clipboard";
import { LargeRuler } from "../../shared/GuessRuler";
import { ProblemNote } from "../../shared/ProblemNote";
import { MarkLegend, SecretText } from "../../shared/SecretText";
import { useDraw, type WordsWish } from "../../shared/useDraw";
import { useKeys } from "../../shared/useKeys";
import { LooseEnds } from "./LooseEnds";
import { PlaceDialog } from "./PlaceDialog";
import { NO_SITE, PolicyBench } from "./PolicyBench";

const WISHED_LENGTH = 20;

export default function GeneratePage() {
  const queryClient = useQueryClient();
  const library = useQuery(queries.policies());
  const { copy } = useClipboard();
  const [site, setSite] = useState(NO_SITE);
  const [policy, setPolicy] = useState<Policy | null>(null);
  const [length, setLength] = useState(WISHED_LENGTH);
  const [words, setWords] = useState<WordsWish | null>(null);
  const [placing, setPlacing] = useState<string | null>(null);
  const [kept, setKept] = useState<string | null>(null);
  const { drawn, problem, draw, back, settled, setProblem } = useDraw();

  const chosen = library.data?.policies.find((p) => p.policy_id === site);
  const base = useMemo(
    () => (chosen?.policy ?? library.data?.default) as Policy | undefined,
    [chosen, library.data],
  );

  const change = useCallback(
    (next: Policy, nextLength: number, passing = true) => {
      const held = Math.max(next.min_length, Math.min(next.max_length, nextLength));
      setPolicy(next);
      setLength(held);
      setWords(null);
      void draw({ length: held, policy: next }, passing);
    },
    [draw],
  );
  const wishWords = useCallback(
    (wish: WordsWish | null) => {
      setWords(wish);
      if (wish) void draw({ ...wish, policy_id: site === NO_SITE ? undefined : site }, true);
      else if (policy) void draw({ length, policy });
    },
    [draw, site, policy, length],
  );
  useEffect(() => {
    if (base && policy === null) change(base, WISHED_LENGTH, false);
  });

  const pick = useCallback(
    (id: string) => {
      const found = library.data?.policies.find((p) => p.policy_id === id)?.policy;
      setSite(id);
      const next = (found ?? library.data?.default) as Policy | undefined;
      if (!next) return;
      if (!words) return change(next, WISHED_LENGTH, false);
      setPolicy(next);
      void draw({ ...words, policy_id: found ? id : undefined });
    },
    [library.data, change, draw, words],
  );

  const keep = async () => {
    const current = await settled();
    if (!current) return null;
    const { loose_end_id } = await answer(
      client.POST("/draws/{draw_id}/keep", {
        params: { path: { draw_id: current.draw_id } },
        body: { address: chosen?.domains[0] ?? "" },
      }),
    );
    setKept(current.draw_id);
    await queryClient.invalidateQueries({ queryKey: ["loose-ends"] });
    return { loose_end_id, secret: current.secret };
  };
  const copyIt = async () => {
    try {
      const kept = await keep();
      if (kept) await copy(chosen ? `New secret for ${chosen.name}` : "New secret", kept.secret);
    } catch (error) {
      setProblem(error);
    }
  };
  const place = async () => {
    try {
      setPlacing((await keep())?.loose_end_id ?? null);
    } catch (error) {
      setProblem(error);
    }
  };
  const again = () => {
    if (words) void draw({ ...words, policy_id: site === NO_SITE ? undefined : site });
    else if (policy) void draw({ length, policy });
  };

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
        <PolicyBench
          library={library.data}
          site={site}
          base={base}
          policy={policy}
          length={length}
          onPick={pick}
          onChange={change}
          words={words}
          onWords={wishWords}
        />
        <section className="drawn" aria-label="The drawn secret">
          <div style={{ minHeight: 58 }} aria-live="polite">
            {drawn &&
              (words ? (
                <WordsText text={drawn.secret} />
              ) : (
                <SecretText secret={drawn.secret} big />
              ))}
          </div>
          {!words && <MarkLegend />}
          <ProblemNote problem={problem} />
          {drawn && drawn.breaks.length > 0 && (
            <p className="problem" role="status">
              {chosen?.name ?? "The site"} would refuse it: {drawn.breaks.join("; ")}.
            </p>
          )}
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
            <b style={{ fontSize: 21 }}>
              {drawn
                ? `${drawn.is_exact ? "" : "at least "}${drawn.entropy_bits} bits`
                : "no secret"}
            </b>
            {size && (
              <span>
                one of {drawn?.is_exact ? "" : "at least "}
                {size.mantissa} × 10<sup>{size.exponent}</sup> equally likely, by counting every
                {words
                  ? " choice of such words"
                  : drawn && policy.keeps_first && policy.keeps_first < length
                    ? ` beginning of ${policy.keeps_first} that the site keeps`
                    : " string that this policy allows at this length"}
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

/** A passphrase is read as words, not in groups of four. */
function WordsText({ text }: { text: string }) {
  return (
    <span
      translate="no"
      style={{ fontFamily: "var(--mono)", fontSize: 30, overflowWrap: "anywhere" }}
    >
      {text}
    </span>
  );
}
