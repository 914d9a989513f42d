import { Button } from "antd";
import { useCallback, useEffect, useEffectEvent, useRef, useState } from "react";
import { answer, client, readPicture, type Schema } from "../api/client";
import { count } from "../domain/moments";
import { ProblemNote } from "./ProblemNote";
import { useSettled } from "./useSettled";
import { FilePicker } from "./FilePicker";

const SETTLES_MS = 300;
type Looked = Schema["LookedAtOut"];

/** Recovery sheets as typed or read from pictures; each is looked at by itself as it comes. */
export function SheetsField(props: { onSheets: (sheets: string[], enough: boolean) => void }) {
  const { onSheets } = props;
  const [ids, setIds] = useState([0]);
  const fields = useRef(new Map<number, HTMLTextAreaElement>());
  const [looked, setLooked] = useState<Looked[]>([]);
  const [filled, setFilled] = useState<number[]>([]);
  const [changes, setChanges] = useState(0);
  const [problem, setProblem] = useState<unknown>(null);
  const picker = useRef<HTMLInputElement>(null);
  const settled = useSettled(changes, SETTLES_MS);

  const look = useCallback(async () => {
    const typed = ids
      .map((id) => ({ id, text: fields.current.get(id)?.value.trim() ?? "" }))
      .filter((one) => one.text);
    setFilled(typed.map((one) => one.id));
    if (!typed.length) {
      setLooked([]);
      onSheets([], false);
      return;
    }
    try {
      const body = { sheets: typed.map((one) => one.text) };
      const found = await answer(client.POST("/vault/recover/look", { body }));
      setLooked(found);
      setProblem(null);
      const good = typed.filter((_, i) => !found[i]?.reason).map((one) => one.text);
      const needed = found.find((one) => !one.reason)?.threshold ?? 1;
      onSheets(good, good.length >= needed);
    } catch (failure) {
      setProblem(failure);
    }
  }, [ids, onSheets]);
  const onSettled = useEffectEvent(() => void look());
  useEffect(() => onSettled(), [settled]);

  const fill = (texts: string[]) => {
    const empty = ids.filter((id) => !fields.current.get(id)?.value.trim());
    const more = texts.slice(empty.length).map((_, i) => Math.max(...ids) + 1 + i);
    setIds([...ids, ...more]);
    window.setTimeout(() => {
      [...empty, ...more].forEach((id, i) => {
        const field = fields.current.get(id);
        if (field && texts[i]) field.value = texts[i];
      });
      setChanges((n) => n + 1);
    });
  };
  const take = async (picture: Blob | null | undefined) => {
    if (!picture) return;
    try {
      setProblem(null);
      fill((await readPicture(picture)).texts);
    } catch (failure) {
      setProblem(failure);
    }
  };

  const good = looked.filter((one) => !one.reason);
  const needed = good[0]?.threshold ?? null;
  return (
    <div
      className="stack gap-10"
      onDragOver={(event) => event.preventDefault()}
      onDrop={(event) => {
        event.preventDefault();
        void take(event.dataTransfer.files[0]);
      }}
      onPaste={(event) => {
        const picture = [...event.clipboardData.files].find((f) => f.type.startsWith("image/"));
        if (picture) {
          event.preventDefault();
          void take(picture);
        }
      }}
    >
      {ids.map((id, i) => {
        const said = looked[filled.indexOf(id)];
        return (
          <label className="field" key={id}>
            <span>Words of sheet {i + 1}</span>
            <textarea
              ref={(element) => {
                if (element) fields.current.set(id, element);
                else fields.current.delete(id);
              }}
              rows={3}
              className="secret-input"
              autoComplete="off"
              autoCapitalize="off"
              spellCheck={false}
              onChange={() => setChanges((n) => n + 1)}
            />
            <span className="small" role="status">
              {said &&
                (said.reason ? (
                  <b className="wrong">This sheet {said.reason}.</b>
                ) : (
                  `Whole: sheet ${said.place} of its set, ${count(said.threshold ?? 1, "sheet")} needed.`
                ))}
            </span>
          </label>
        );
      })}
      <div className="row">
        <FilePicker
          ref={picker}
          label="Picture of a sheet"
          accept="image/*"
          onFile={(file) => void take(file)}
        />
        <Button size="small" onClick={() => picker.current?.click()}>
          Read a picture…
        </Button>
        <Button size="small" onClick={() => setIds([...ids, Math.max(...ids) + 1])}>
          Another sheet
        </Button>
        {needed !== null && good.length < needed && (
          <span className="small">{count(needed - good.length, "sheet")} more to go</span>
        )}
      </div>
      <ProblemNote problem={problem} />
    </div>
  );
}
