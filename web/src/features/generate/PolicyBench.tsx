import { Select } from "antd";
import { memo } from "react";
import type { Schema } from "../../api/client";
import { policySentence, type Policy } from "../../domain/policy";

export const NO_SITE = "none";

type Props = {
  library: Schema["PolicyList"];
  site: string;
  policy: Policy;
  /** Whether the policy binds what is drawn. */
  binds: boolean;
  onPick: (site: string) => void;
  children: React.ReactNode;
};

/** The policy at hand as one sentence; below it the kind of secret and its choices. */
export function PolicyBench({ library, site, policy, binds, onPick, children }: Props) {
  return (
    <section className="bench" aria-label="Site policy">
      <SitePick library={library} site={site} onPick={onPick} />
      <div>
        <p className="small quiet">Site policy</p>
        <p>
          {binds ? policySentence(policy) : "None chosen: where you name a site, its rules bind."}
        </p>
      </div>
      {children}
    </section>
  );
}

const SitePick = memo(function SitePick(props: Pick<Props, "library" | "site" | "onPick">) {
  const { library, site, onPick } = props;
  return (
    <label className="field">
      <span>For</span>
      <Select
        value={site}
        onChange={onPick}
        aria-label="For which site"
        showSearch
        optionFilterProp="label"
        options={[
          { value: NO_SITE, label: "no site in particular" },
          ...library.policies.map((p) => ({ value: p.policy_id, label: p.name })),
        ]}
      />
    </label>
  );
});
