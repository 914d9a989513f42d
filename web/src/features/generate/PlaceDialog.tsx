import { useQuery } from "@tanstack/react-query";
import { useDeferredValue, useMemo, useRef, useState } from "react";
import { useNavigate } from "react-router";
import { answer, client, type Schema } from "../../api/client";
import { queries } from "../../api/queries";
import { hostOf } from "../../domain/address";
import { keptOutPlace } from "../../domain/keptOut";
import { matches } from "../../domain/search";
import { offerSeed, type LoginSeed } from "../../shared/loginSeed";
import { ProblemNote } from "../../shared/ProblemNote";
import { Dialogue } from "../../shared/Dialogue";

const SHOWN = 6;
const SITES_SHOWN = 3;

/** A new login or an existing one, both as near: type its title or its site. */
export function PlaceDialog({ looseEndId, onClose }: { looseEndId: string; onClose: () => void }) {
  const navigate = useNavigate();
  const library = useQuery(queries.policies());
  const looseEnds = useQuery(queries.looseEnds());
  const field = useRef<HTMLInputElement>(null);
  const [typed, setTyped] = useState("");
  const [problem, setProblem] = useState<unknown>(null);
  const seen = looseEnds.data?.find((one) => one.loose_end_id === looseEndId)?.address ?? "";
  const sought = typed.trim() || hostOf(seen).split(".")[0] || "";
  const found = useQuery(queries.foundLogins(useDeferredValue(sought), SHOWN)).data ?? [];
  const keptOut = useQuery(queries.safeguards()).data?.kept_out;
  const seeds = useMemo(
    () =>
      offered(library.data?.policies ?? [], typed.trim(), seen).filter(
        (seed) => !seed.address || keptOutPlace(keptOut ?? [], seed.address) === null,
      ),
    [library.data, typed, seen, keptOut],
  );

  const begin = (seed: LoginSeed) => {
    offerSeed(seed);
    void navigate(`/logins/new?loose_end=${looseEndId}`);
  };
  const stage = async (login: Schema["FoundLogin"]) => {
    if (!login.has_secret) {
      void navigate(`/logins/${login.login_id}/edit?loose_end=${looseEndId}`);
      return;
    }
    try {
      const body = { login_id: login.login_id, secret: { loose_end_id: looseEndId } };
      const rotation = await answer(client.POST("/rotations", { body }));
      void navigate(`/rotate/${rotation.rotation_id}`);
    } catch (error) {
      setProblem(error);
    }
  };

  return (
    <Dialogue
      open
      title="Where does it belong?"
      footer={null}
      onCancel={onClose}
      afterOpenChange={(open) => open && field.current?.focus()}
    >
      <div className="stack">
        <label className="field">
          <span>Title, site or user name</span>
          <input
            ref={field}
            className="secret-input in-face"
            autoComplete="off"
            spellCheck={false}
            onChange={(event) => setTyped(event.target.value)}
            onKeyDown={(event) => {
              if (event.key === "Enter" && seeds[0]) begin(seeds[0]);
            }}
          />
        </label>
        <div>
          {seeds.length === 0 && (
            <p className="small">This place is kept out: no login is offered for it.</p>
          )}
          {seeds.map((seed, i) => (
            <button
              key={`${seed.title} ${seed.address}`}
              type="button"
              className="facet"
              onClick={() => begin(seed)}
            >
              <span>
                <b>A new login{seed.title ? `: ${seed.title}` : ""}</b>{" "}
                <span className="small quiet">{seed.address}</span>
              </span>
              {i === 0 && <kbd>Enter</kbd>}
            </button>
          ))}
        </div>
        <div>
          <p className="small quiet">or the new secret of a login that is there</p>
          {found.map((login) => (
            <button
              key={login.login_id}
              type="button"
              className="facet"
              disabled={login.rotation_id !== null}
              onClick={() => void stage(login)}
            >
              <span>
                {login.title}{" "}
                <span className="small quiet">
                  {login.rotation_id ? "is being rotated already" : login.user_name}
                </span>
              </span>
            </button>
          ))}
          {found.length === 0 && <p className="small">None fits what is typed.</p>}
        </div>
        <ProblemNote problem={problem} />
      </div>
    </Dialogue>
  );
}

/** New logins that are likely meant: as typed, at the site in view, at a site that is known. */
function offered(policies: Schema["PolicyOut"][], typed: string, seen: string): LoginSeed[] {
  const known = (policy: Schema["PolicyOut"]) => ({
    title: policy.name,
    address: policy.domains[0] ?? "",
  });
  const host = hostOf(seen);
  const here = policies.find((p) => p.domains.some((d) => host === d || host.endsWith(`.${d}`)));
  const site = here ? known(here) : null;
  const address = seen || site?.address || "";
  if (!typed) return [{ title: site?.title ?? host, address }];
  const fitting = policies
    .filter((p) => matches([p.name, ...p.domains].join(" "), typed))
    .slice(0, SITES_SHOWN)
    .map(known);
  const isAddress = /\.[a-z]{2,}/i.test(typed) || typed.includes("://");
  const plain = isAddress
    ? { title: hostOf(typed).split(".")[0] ?? "", address: typed }
    : { title: typed, address };
  return [...fitting, plain];
}
