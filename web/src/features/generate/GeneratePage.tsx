import { Button } from "antd";
import { useRef, useState } from "react";
import { answer, client, type Schema } from "../../api/client";
import { useClipboard } from "../../shared/clipboard";
import { LargeRuler } from "../../shared/GuessRuler";
import { Outgoing } from "../../shared/Outgoing";
import { ProblemNote } from "../../shared/ProblemNote";
import { MarkLegend } from "../../shared/SecretText";
import { SpellOut } from "../../shared/SpellOut";
import { useKeys } from "../../shared/useKeys";
import { useSettled } from "../../shared/useSettled";
import { CharactersBench } from "./CharactersBench";
import { DrawnText } from "../../shared/DrawnText";
import { EarlierDraws } from "./EarlierDraws";
import { KindPick } from "./KindPick";
import { LooseEnds } from "./LooseEnds";
import { LineBench, PinBench, SentenceBench } from "./OtherBenches";
import { PlaceDialog } from "./PlaceDialog";
import { PolicyBench } from "./PolicyBench";
import { SideBySide } from "./SideBySide";
import { useGenerator } from "./useGenerator";
import { WordsBench } from "./WordsBench";
import { WorthLine } from "./WorthLine";

const USUAL_BITS = 75;
/** A slider that still moves is not compared. */
const COMPARED_AFTER_MS = 700;

/** log10 of the guesses: of the bits where choosing took some off, else of the count itself. */
function worth(drawn: Schema["DrawOut"]): number {
  const chosen = drawn.looked_at > 1 && drawn.entropy_bits !== null;
  return chosen ? (drawn.entropy_bits ?? 0) * Math.log10(2) : drawn.space_size_log10;
}

export default function GeneratePage() {
  const { copy } = useClipboard();
  const g = useGenerator();
  const { drawn, chosen, settled, setProblem } = g;
  const [placing, setPlacing] = useState<string | null>(null);
  const [sealed, setSealed] = useState<string | null>(null);
  const [spelling, setSpelling] = useState<string | null>(null);
  const bits = useSettled(
    drawn ? Math.floor(drawn.whole_bits ?? drawn.entropy_bits ?? USUAL_BITS) : null,
    COMPARED_AFTER_MS,
  );
  const sides = useRef<HTMLDivElement>(null);

  const keep = async () => {
    const current = await settled();
    if (!current) return null;
    const { loose_end_id } = await answer(
      client.POST("/draws/{draw_id}/keep", {
        params: { path: { draw_id: current.draw_id } },
        body: { address: chosen?.domains[0] ?? "" },
      }),
    );
    setSealed(current.draw_id);
    return { loose_end_id, secret: current.secret };
  };
  type Kept = { loose_end_id: string; secret: string };
  /** Nothing leaves the page before it is sealed. */
  const sealedFirst = (then: (kept: Kept) => unknown) => async () => {
    try {
      const kept = await keep();
      if (kept) await then(kept);
    } catch (error) {
      setProblem(error);
    }
  };
  const copyIt = sealedFirst(({ secret }) =>
    copy(chosen ? `New secret for ${chosen.name}` : "New secret", secret),
  );
  const place = sealedFirst(({ loose_end_id }) => setPlacing(loose_end_id));
  const spell = sealedFirst(({ secret }) => setSpelling(secret));
  const leave = sealedFirst(() => undefined);
  const compare = () => sides.current?.querySelector("button")?.focus();

  useKeys({
    y: () => void copyIt(),
    " ": g.again,
    ArrowLeft: () => void g.back(),
    p: () => void place(),
    s: () => void spell(),
    b: compare,
  });

  if (g.library.error)
    return (
      <main className="page">
        <ProblemNote problem={g.library.error} />
      </main>
    );
  if (!g.library.data || !g.policy || !g.base) return <main className="page" aria-busy="true" />;

  const marked = drawn && drawn.words.length === 0 && drawn.kind !== "sentence";
  return (
    <div className="generate-page-div">
      <main className="generate grow">
        <h1 className="visually-hidden">Generate</h1>
        <PolicyBench
          library={g.library.data}
          site={g.site}
          policy={g.policy}
          binds={g.atSite || g.kind === "characters"}
          onPick={g.pick}
        >
          <KindPick kind={g.kind} onKind={g.pickKind} />
          {g.kind === "characters" && (
            <CharactersBench
              base={g.base}
              policy={g.policy}
              length={g.length}
              lookAlikes={g.library.data.look_alikes}
              onChange={g.changePolicy}
            />
          )}
          {g.kind === "words" && (
            <WordsBench
              shape={g.words}
              plain={false}
              onChange={g.changeWords}
              onDice={g.takeDice}
            />
          )}
          {g.kind === "answer" && (
            <WordsBench shape={g.reply} plain onChange={g.changeReply} onDice={g.takeDice} />
          )}
          {g.kind === "sentence" && (
            <SentenceBench shape={g.sentence} onChange={g.changeSentence} />
          )}
          {g.kind === "pin" && <PinBench length={g.pin} onChange={g.changePin} />}
          {g.kind === "line" && <LineBench onLine={g.takeLine} />}
        </PolicyBench>
        <section className="drawn" aria-label="The drawn secret">
          <div className="generate-page-div-2" aria-live="polite">
            {drawn && (
              <Outgoing
                secret={drawn.secret}
                onCopy={() => void copyIt()}
                onDrag={() => void leave()}
              >
                <DrawnText drawn={drawn} kept={g.kept} onKeep={g.toggleKept} />
              </Outgoing>
            )}
          </div>
          {marked && <MarkLegend />}
          {drawn && drawn.words.length > 0 && (
            <p className="small quiet">
              {g.kept.size
                ? `${g.kept.size} of ${drawn.words.length} words stay when you draw again.`
                : "Choose the words that are to stay; drawing again changes the others."}
            </p>
          )}
          <ProblemNote problem={g.problem} />
          {drawn && drawn.notes.length > 0 && (
            <p role="status">
              {chosen ? `As the rules of ${chosen.name} ask: ` : ""}
              {drawn.notes.join("; ")}.
            </p>
          )}
          {drawn && drawn.breaks.length > 0 && (
            <p className="problem" role="status">
              {chosen?.name ?? "The site"} would refuse it: {drawn.breaks.join("; ")}.
            </p>
          )}
          <div className="row">
            <Button type="primary" onClick={() => void copyIt()} disabled={!drawn}>
              Copy <kbd>Y</kbd>
            </Button>
            <Button onClick={g.again} disabled={g.kind === "line"}>
              {g.kept.size ? "Draw the others again" : "Draw again"} <kbd>Space</kbd>
            </Button>
            <Button onClick={() => void place()} disabled={!drawn}>
              Place in a login… <kbd>P</kbd>
            </Button>
            <Button onClick={() => void spell()} disabled={!drawn}>
              Spell it out <kbd>S</kbd>
            </Button>
          </div>
          <p className="small quiet">
            {drawn && sealed === drawn.draw_id
              ? "Kept under Loose ends until you place it."
              : "Whatever leaves this page is kept under Loose ends until you place it."}
          </p>
          <WorthLine drawn={drawn} policy={g.policy} atSite={g.atSite} />
          <div className="at-most-780">
            <LargeRuler log10={drawn ? worth(drawn) : null} />
          </div>
          <div className="beside-the-draw">
            <div ref={sides}>
              {bits !== null && (
                <SideBySide
                  bits={bits}
                  policy={g.atSite ? g.policy : undefined}
                  shape={g.words}
                  onTake={g.takeDraw}
                />
              )}
            </div>
            <EarlierDraws current={drawn?.draw_id} onTake={g.takeDraw} />
          </div>
        </section>
      </main>
      <LooseEnds onPlace={setPlacing} />
      {placing && <PlaceDialog looseEndId={placing} onClose={() => setPlacing(null)} />}
      {spelling !== null && <SpellOut secret={spelling} onClose={() => setSpelling(null)} />}
    </div>
  );
}
