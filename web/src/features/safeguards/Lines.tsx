import { Input, Switch } from "antd";
import type { ReactNode } from "react";

/** One safeguard: its name, its state, its setting. */
export function Line(props: {
  name: string;
  on: boolean;
  words?: [string, string];
  children: ReactNode;
}) {
  const [yes, no] = props.words ?? ["on", "off"];
  return (
    <tr>
      <td>{props.name}</td>
      <td>{props.on ? yes : <b className={props.words ? undefined : "grave"}>{no}</b>}</td>
      <td>
        <span className="row small">{props.children}</span>
      </td>
    </tr>
  );
}

/** A service outside: off until it is switched on, with what it would learn. */
export function ServiceLine(props: {
  name: string;
  on: boolean;
  words: [string, string];
  act: string;
  used: boolean;
  onUse: (on: boolean) => void;
  place: string;
  address: string;
  onAddress: (address: string) => void;
  children: ReactNode;
}) {
  return (
    <Line name={props.name} on={props.on} words={props.words}>
      <Switch aria-label={props.act} checked={props.used} onChange={props.onUse} />
      <Input
        aria-label={props.place}
        value={props.address}
        placeholder="https://…"
        autoComplete="off"
        spellCheck={false}
        className="wide-320"
        onChange={(event) => props.onAddress(event.target.value)}
      />
      <span>{props.children}</span>
    </Line>
  );
}
