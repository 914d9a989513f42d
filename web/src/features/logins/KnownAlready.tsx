import { useQuery } from "@tanstack/react-query";
import { useDeferredValue } from "react";
import { Link } from "react-router";
import { queries } from "../../api/queries";

type Props = {
  typed: { title: string; user_name: string; address: string };
  onAddress: (address: string) => void;
  onUserName: (name: string) => void;
};

/** What is known of a login that is being typed: that it is there already, or its site is. */
export function KnownAlready({ typed, onAddress, onUserName }: Props) {
  const { title, user_name, address } = useDeferredValue(typed);
  const asked = title.trim().length > 1 || address.trim() !== "";
  const known = useQuery({
    ...queries.knownLogin({ title, user_name, address }),
    enabled: asked,
  }).data;
  if (!asked || !known) return null;
  const { same } = known;
  if (!same && !known.address && known.user_names.length === 0) return null;
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
      {known.address && (
        <button type="button" className="link" onClick={() => onAddress(known.address)}>
          take the address {known.address}
        </button>
      )}{" "}
      {known.user_names.map((name) => (
        <button key={name} type="button" className="link" onClick={() => onUserName(name)}>
          take the user name {name}
        </button>
      ))}
    </p>
  );
}
