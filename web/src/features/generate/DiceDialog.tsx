import { Button } from "antd";
import { useRef, type FormEvent } from "react";
import { Dialogue } from "../../shared/Dialogue";

type Props = { words: number; onDice: (faces: string[]) => void; onClose: () => void };

/** Five real dice a word: their faces, as they lie. */
export function DiceDialog({ words, onDice, onClose }: Props) {
  const fields = useRef<(HTMLInputElement | null)[]>([]);
  const submit = (event: FormEvent) => {
    event.preventDefault();
    onDice(fields.current.slice(0, words).map((field) => (field?.value ?? "").trim()));
  };
  return (
    <Dialogue
      open
      title="Real dice"
      footer={null}
      onCancel={onClose}
      afterOpenChange={(open) => open && fields.current[0]?.focus()}
    >
      <form className="stack" onSubmit={submit} autoComplete="off">
        <p className="small quiet">
          Throw five dice for each word and type their faces from left to right, as 16342. 6⁵ =
          7,776: each throw is one word of the list, so the bits are exact if the dice are fair.
        </p>
        <div className="dice-dialog-div">
          {Array.from({ length: words }, (_, i) => (
            <label className="field" key={i}>
              <span>Word {i + 1}</span>
              <input
                ref={(element) => {
                  fields.current[i] = element;
                }}
                className="secret-input"
                inputMode="numeric"
                maxLength={5}
                autoComplete="off"
                spellCheck={false}
                onInput={(event) => {
                  if (event.currentTarget.value.length === 5) fields.current[i + 1]?.focus();
                }}
              />
            </label>
          ))}
        </div>
        <div className="row">
          <Button type="primary" htmlType="submit">
            Take these words
          </Button>
        </div>
      </form>
    </Dialogue>
  );
}
