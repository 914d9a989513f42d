import { useQuery } from "@tanstack/react-query";
import { Select } from "antd";
import { useState } from "react";
import { queries } from "../../api/queries";

type Named = { title: string; user_name: string };
type Props = { own: string | null; value: string | null; onChange: (id: string | null) => void };

const label = (one: Named) => (one.user_name ? `${one.title} (${one.user_name})` : one.title);

/** Through which login's mailbox another is reset: found by what is typed. */
export function MailboxField({ own, value, onChange }: Props) {
  const [typed, setTyped] = useState("");
  const found = useQuery(queries.foundLogins(typed)).data ?? [];
  const chosen = useQuery({ ...queries.login(value ?? ""), enabled: value !== null }).data;
  const options = found
    .filter((one) => one.login_id !== own && one.login_id !== value)
    .map((one) => ({ value: one.login_id, label: label(one) }));
  if (value !== null)
    options.unshift({ value, label: chosen ? label(chosen) : "a login that is gone" });
  return (
    <label className="field">
      <span>Reset through which mailbox</span>
      <Select
        aria-label="Reset through which mailbox"
        value={value}
        onChange={(next) => {
          onChange(next ?? null);
          setTyped("");
        }}
        allowClear
        placeholder="no mailbox named"
        showSearch={{ filterOption: false, onSearch: setTyped }}
        options={options}
      />
    </label>
  );
}
