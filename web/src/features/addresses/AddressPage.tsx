import { Input, type InputRef } from "antd";
import { useEffect, useRef, useState } from "react";
import { Link } from "react-router";
import { answer, client, type Schema } from "../../api/client";
import { count } from "../../domain/moments";
import { HOW_ALIKE } from "../../domain/address";
import { KeepOut } from "../../shared/KeepOut";
import { ProblemNote } from "../../shared/ProblemNote";
import { useAct } from "../../shared/useAct";
import { useSettled } from "../../shared/useSettled";

const SETTLES_MS = 250;

/** Any address, pasted, typed or dropped: whose it is, or which site it only resembles. */
export default function AddressPage() {
  const [address, setAddress] = useState("");
  const [seen, setSeen] = useState<Schema["AddressSeenOut"] | null>(null);
  const { problem, setProblem, run } = useAct();
  const field = useRef<InputRef>(null);
  const settled = useSettled(address.trim(), SETTLES_MS);

  useEffect(() => field.current?.focus(), []);
  useEffect(() => {
    setSeen(null);
    setProblem(null);
    if (!settled) return;
    let live = true;
    void run(async () => {
      const found = await answer(client.POST("/addresses", { body: { address: settled } }));
      if (live) setSeen(found);
    });
    return () => {
      live = false;
    };
  }, [settled, run, setProblem]);

  useEffect(() => {
    const onDragOver = (event: DragEvent) => event.preventDefault();
    const onDrop = (event: DragEvent) => {
      event.preventDefault();
      const given = event.dataTransfer;
      setAddress(given?.getData("text/uri-list") || given?.getData("text/plain") || "");
    };
    window.addEventListener("dragover", onDragOver);
    window.addEventListener("drop", onDrop);
    return () => {
      window.removeEventListener("dragover", onDragOver);
      window.removeEventListener("drop", onDrop);
    };
  }, []);

  return (
    <main className="page address-page-page">
      <h1>Whose address is this?</h1>
      <p className="address-page-p">
        Paste or drop the address of a page, or of a link in a mail, before you sign in there.
      </p>
      <label className="field">
        <span>Address</span>
        <Input
          ref={field}
          value={address}
          placeholder="https://…"
          autoComplete="off"
          spellCheck={false}
          size="large"
          onChange={(event) => setAddress(event.target.value)}
        />
      </label>
      <ProblemNote problem={problem} />
      <div role="status" className="above-22">
        {seen && <Said seen={seen} />}
      </div>
      {seen && (
        <div className="above-22">
          <KeepOut address={settled} />
        </div>
      )}
    </main>
  );
}

function Said({ seen }: { seen: Schema["AddressSeenOut"] }) {
  if (seen.logins.length)
    return (
      <>
        <h2 className="breaks-anywhere">
          It belongs to {seen.domain}: {count(seen.logins.length, "login")}
        </h2>
        <Logins logins={seen.logins} />
      </>
    );
  if (!seen.resembles.length)
    return (
      <>
        <h2 className="breaks-anywhere">No login here is of {seen.host}</h2>
        <p className="quiet">And it resembles none of their sites.</p>
      </>
    );
  return (
    <>
      <h2>None of your logins is of this site, and it resembles one</h2>
      <p className="address-said breaks-anywhere">
        <Letters text={seen.host} />
      </p>
      {seen.resembles.map((one) => (
        <section key={one.domain} className="above-14">
          <p>
            It is not <b className="mono">{one.domain}</b>: {HOW_ALIKE[one.how]}. Nothing is offered
            for it.
          </p>
          <p className="small quiet">
            Yours there: {one.logins.map((login) => login.title).join(", ")}
          </p>
        </section>
      ))}
    </>
  );
}

/** A host with the letters marked that are not of its plain alphabet. */
function Letters({ text }: { text: string }) {
  return (
    <span className="mono">
      {[...text].map((c, i) =>
        /^[ -~]$/.test(c) ? (
          c
        ) : (
          <mark key={i} className="other-letter">
            {c}
          </mark>
        ),
      )}
    </span>
  );
}

function Logins({ logins }: { logins: Schema["SeenLogin"][] }) {
  return (
    <table className="plain above-8">
      <thead>
        <tr>
          <th className="wide-42-percent">Login</th>
          <th className="wide-36-percent">User name</th>
          <th>
            <span className="visually-hidden">acts</span>
          </th>
        </tr>
      </thead>
      <tbody>
        {logins.map((login) => (
          <tr key={login.login_id}>
            <td>
              <Link to={`/logins/${login.login_id}`}>{login.title}</Link>
            </td>
            <td>{login.user_name}</td>
            <td className="right">
              <Link to={`/logins/${login.login_id}/sign-in`}>sign in</Link>
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
