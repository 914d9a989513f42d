import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import type { Schema } from "../api/client";
import { queries } from "../api/queries";
import { CORD_LABELS, FINDING_LABELS } from "../domain/findings";
import { FindingShape } from "./icons";

const SHOWN = 6;

type Props = { loginId: string; heading?: string; without?: Schema["FindingKind"] };

/** A login's findings, and the logins that fall if it falls. */
export function WhatFalls({ loginId, heading = "Findings and reach", without }: Props) {
  const found = useQuery(queries.findingsOf(loginId));
  const falls = useQuery(queries.reachOf(loginId));
  const findings = (found.data ?? []).filter((finding) => finding.kind !== without);
  const others = falls.data ?? [];
  if (findings.length === 0 && others.length === 0) return null;
  return (
    <section className="above-18">
      <h2>{heading}</h2>
      {findings.map((f) => (
        <p key={f.kind} className="small row what-falls-small">
          <FindingShape kind={f.kind} />
          <span>
            {FINDING_LABELS[f.kind]}: {f.evidence}
          </span>
        </p>
      ))}
      {others.length > 0 && (
        <p className="small above-6">
          If it falls, so do{" "}
          {others.slice(0, SHOWN).map((o, i) => (
            <span key={o.login_id}>
              {i > 0 && ", "}
              <Link to={`/logins/${o.login_id}`}>{o.title}</Link> ({CORD_LABELS[o.by]}
              {o.after_title && `, after ${o.after_title}`})
            </span>
          ))}
          {others.length > SHOWN && ` and ${others.length - SHOWN} more`}.
        </p>
      )}
    </section>
  );
}
