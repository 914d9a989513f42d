import { Input, InputNumber, Radio } from "antd";
import { useState } from "react";
import { answer, client, type Schema } from "../../api/client";
import { ProblemNote } from "../../shared/ProblemNote";
import { Dialogue } from "../../shared/Dialogue";
import { DraftNote, useFormDraft } from "../../shared/useFormDraft";

type Kind = Schema["LessonKind"] | "not_said";

const KINDS: [Kind, string][] = [
  ["too_long", "too long"],
  ["too_short", "too short"],
  ["these_characters", "characters that it does not take"],
  ["no_symbols", "no symbols at all"],
  ["too_like_the_last", "too like an earlier one"],
  ["its_words", "in its own words"],
  ["not_said", "it did not say"],
];

type Props = {
  rotation: Schema["RotationOut"];
  /** The small window that it is to open in; null for the page. */
  strip: Window | null;
  onDone: () => void;
  onClose: () => void;
};

/** Why the site refused: the site's policy learns it, and another secret is there at once. */
export function RefusalDialog({ rotation, strip, onDone, onClose }: Props) {
  const [kind, setKind] = useState<Kind>("its_words");
  const [length, setLength] = useState<number | null>(null);
  const [text, setText] = useState("");
  const [problem, setProblem] = useState<unknown>(null);
  const kept = useFormDraft<{ kind: Kind; length: number | null; text: string }>(
    `refusal-${rotation.rotation_id}`,
    () => ({ kind, length, text }),
    (content) => {
      setKind(content.kind);
      setLength(content.length);
      setText(content.text);
    },
    JSON.stringify({ kind, length, text }),
  );
  const needsLength = kind === "too_long" || kind === "too_short";
  const needsText = kind === "its_words" || kind === "these_characters";

  const tell = async () => {
    setProblem(null);
    const params = { path: { rotation_id: rotation.rotation_id } };
    try {
      if (kind === "not_said")
        await answer(
          client.POST("/rotations/{rotation_id}/events", {
            params,
            body: { event: "refuse", refusal: "" },
          }),
        );
      else
        await answer(
          client.POST("/rotations/{rotation_id}/lesson", {
            params,
            body: {
              kind,
              length: needsLength ? length : null,
              text: needsText ? text : "",
            },
          }),
        );
      void kept.forget();
      onDone();
    } catch (failure) {
      setProblem(failure);
    }
  };

  return (
    <Dialogue
      open
      endsByEnter
      width={strip ? 368 : 496}
      getContainer={() => strip?.document.body ?? document.body}
      title="What did the site say?"
      okText={kind === "not_said" ? "It refused" : "Learn it, and draw another"}
      cancelText="Back"
      onCancel={strip ? onClose : () => kept.leave(onClose)}
      onOk={() => void tell()}
    >
      <div className="stack gap-12">
        <DraftNote
          draft={kept}
          onAnew={() => {
            setKind("its_words");
            setLength(null);
            setText("");
          }}
        />
        <Radio.Group
          aria-label="Why it refused"
          value={kind}
          onChange={(change) => setKind(change.target.value as Kind)}
          className="refusal-dialog-why-it-refused"
          options={KINDS.map(([value, label]) => ({ value, label }))}
        />
        {needsLength && (
          <label className="field">
            <span>{kind === "too_long" ? "Greatest length" : "Least length"} that it takes</span>
            <InputNumber
              aria-label="Length that it takes"
              min={1}
              max={256}
              value={length}
              onChange={setLength}
            />
          </label>
        )}
        {needsText && (
          <label className="field">
            <span>
              {kind === "its_words" ? "Its sentence, pasted" : "The characters that it refused"}
            </span>
            <Input.TextArea
              rows={2}
              value={text}
              autoComplete="off"
              spellCheck={false}
              onChange={(change) => setText(change.target.value)}
            />
          </label>
        )}
        <p className="small quiet">
          {kind === "not_said"
            ? "The policy of the site stays as it is; draw another when you like."
            : "The policy of the site changes, noted as learned from a refusal. The secret that it refused is kept, marked never used."}
        </p>
        <ProblemNote problem={problem} />
      </div>
    </Dialogue>
  );
}
