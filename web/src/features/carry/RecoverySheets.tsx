import { Button, Checkbox, Input } from "antd";
import { useState } from "react";
import type { Schema } from "../../api/client";
import { day } from "../../domain/moments";
import { usePrinted } from "../../shared/PaperSheet";
import { QrCode } from "../../shared/QrCode";
import { Dialogue } from "../../shared/Dialogue";

type Props = { made: Schema["MadeSheets"]; onClose: () => void };

/** The new sheets, shown and printed this once. */
export function RecoverySheets({ made, onClose }: Props) {
  const [named, setNamed] = useState(true);
  const [at, setAt] = useState(0);
  const [printed, setPrinted] = useState(false);
  const [dismissing, setDismissing] = useState(false);
  const [asked] = useState(() => twoPlaces(made.sheets));
  const [given, setGiven] = useState(["", ""]);
  const isWritten = asked.every((one, i) => given[i]?.trim().toLowerCase() === one.word);
  const isKept = printed || isWritten;
  const { sheet, print } = usePrinted();
  const total = made.sheets.length;
  const shown = made.sheets[at];
  const [now] = useState(() => new Date().toISOString());
  const printAll = () => {
    setPrinted(true);
    print(
      made.sheets.map((one, i) => (
        <section key={i} className="recovery-sheet">
          <h1>{named ? "Recovery sheet of a New Knot vault" : "Keep this sheet"}</h1>
          <p>
            {total > 1 && `Sheet ${i + 1} of ${total}. `}
            {named &&
              `Made ${day(now)}. In New Knot's locked page choose “The passphrase is forgotten”, and type these words or read the picture.`}
            {named && total > 1 && " It needs others of its set to open anything."}
          </p>
          <Words words={one.words} />
          <QrCode rows={one.qr_rows} name="The words as a picture" wide={220} />
        </section>
      )),
    );
  };
  return (
    <Dialogue
      open
      width={720}
      title={total > 1 ? `Sheet ${at + 1} of ${total}` : "The recovery sheet"}
      footer={null}
      closable={isKept}
      keyboard={isKept}
      onCancel={onClose}
      mask={{ closable: false }}
    >
      <div className="stack">
        <p className="small">
          These words are shown this once and stored nowhere. The vault opens with them from now on.
        </p>
        {shown && (
          <div className="row recovery-sheets-row">
            <Words words={shown.words} />
            <QrCode rows={shown.qr_rows} name="The words as a picture" wide={260} />
          </div>
        )}
        {total > 1 && (
          <div className="row">
            <Button disabled={at === 0} onClick={() => setAt(at - 1)}>
              The one before
            </Button>
            <Button disabled={at === total - 1} onClick={() => setAt(at + 1)}>
              The next
            </Button>
          </div>
        )}
        <div className="row">
          <Button type="primary" onClick={printAll} data-begins>
            {total > 1 ? `Print all ${total}, one a page` : "Print it"}
          </Button>
          <Checkbox checked={named} onChange={(event) => setNamed(event.target.checked)}>
            the paper says what it is for and how to use it
          </Checkbox>
        </div>
        <fieldset className="row gap-8 small written-down">
          <legend className="below-6">Or written down by hand: two words, to be sure</legend>
          {asked.map((one, i) => (
            <label key={one.says} className="field">
              <span>{one.says}</span>
              <Input
                value={given[i]}
                autoComplete="off"
                spellCheck={false}
                onChange={(event) =>
                  setGiven((now) => now.map((text, at) => (at === i ? event.target.value : text)))
                }
              />
            </label>
          ))}
        </fieldset>
        <div className="row">
          <Button disabled={!isKept} onClick={onClose}>
            They are on paper: close
          </Button>
          {!isKept && !dismissing && (
            <button type="button" className="link small" onClick={() => setDismissing(true)}>
              close without paper…
            </button>
          )}
          {!isKept && dismissing && (
            <span className="row small" role="alert">
              Nobody will ever see these words again, and those before them are void.
              <Button size="small" onClick={onClose}>
                Close without paper
              </Button>
              <Button size="small" onClick={() => setDismissing(false)}>
                Stay
              </Button>
            </span>
          )}
        </div>
      </div>
      {sheet}
    </Dialogue>
  );
}

type Asked = { says: string; word: string };

/** Two words that only who has the sheets before them can give. */
function twoPlaces(sheets: { words: string }[]): Asked[] {
  const places = sheets.flatMap(({ words }, s) =>
    words.split(" ").map((word, i) => ({
      says: sheets.length > 1 ? `Sheet ${s + 1}, word ${i + 1}` : `Word ${i + 1}`,
      word,
    })),
  );
  const [first = 0, second = 0] = crypto.getRandomValues(new Uint32Array(2));
  const one = first % places.length;
  const other = (one + 1 + (second % (places.length - 1))) % places.length;
  return [one, other].flatMap((at) => places[at] ?? []);
}

function Words({ words }: { words: string }) {
  return (
    <ol className="sheet-words mono" translate="no">
      {words.split(" ").map((word, i) => (
        <li key={i}>{word}</li>
      ))}
    </ol>
  );
}
