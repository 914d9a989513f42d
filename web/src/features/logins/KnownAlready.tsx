import { Link } from "react-router";
import type { Schema } from "../../api/client";

type Row = Schema["LoginRow"];
type Typed = { title: string; user_name: string; address: string };
type Props = {
  typed: Typed;
  logins: Row[];
  onAddress: (address: string) => void;
  onUserName: (name: string) => void;
};

const plain = (text: string) => text.trim().toLowerCase();
const hostOf = (address: string) =>
  plain(address)
    .replace(/^https?:\/\//, "")
    .split("/")[0] ?? "";

/** What is known of a login that is being typed: that it is there already, or its site is. */
export function KnownAlready({ typed, logins, onAddress, onUserName }: Props) {
  const title = plain(typed.title);
  if (title.length < 2 && !typed.address.trim()) return null;
  const host = hostOf(typed.address);
  const here = logins.filter(
    (one) =>
      (title !== "" && plain(one.title) === title) || (host !== "" && hostOf(one.address) === host),
  );
  if (here.length === 0) return null;
  const same = here.find((one) => plain(one.user_name) === plain(typed.user_name));
  const address = typed.address.trim() ? "" : (here.find((one) => one.address)?.address ?? "");
  const names = typed.user_name.trim()
    ? []
    : [...new Set(here.map((one) => one.user_name).filter(Boolean))].slice(0, 3);
  return (
    <p className="small" role="status">
      {same && (
        <>
          <b>
            {same.title} with {same.user_name ? `the user name ${same.user_name}` : "no user name"}{" "}
            is here already:
          </b>{" "}
          <Link to={`/logins/${same.login_id}`}>open that one</Link>, or save another one here.{" "}
        </>
      )}
      {address && (
        <button type="button" className="link" onClick={() => onAddress(address)}>
          take the address {address}
        </button>
      )}{" "}
      {names.map((name) => (
        <button key={name} type="button" className="link" onClick={() => onUserName(name)}>
          take the user name {name}
        </button>
      ))}
    </p>
  );
}
