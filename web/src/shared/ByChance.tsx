import { Checkbox } from "antd";

/** Asked of a passphrase that is enough only if nobody guesses how it was made. */
export function ByChance(props: { checked: boolean; onChange: (checked: boolean) => void }) {
  return (
    <div className="stack gap-4">
      <p className="small">
        <b>
          Nothing here explains it, which is no proof: if somebody guesses how you made it, it falls
          sooner.
        </b>
      </p>
      <Checkbox checked={props.checked} onChange={(event) => props.onChange(event.target.checked)}>
        chance drew it: dice, or a program
      </Checkbox>
    </div>
  );
}
