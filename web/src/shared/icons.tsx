import type { ReactNode } from "react";
import type { FindingKind } from "../domain/findings";

const LINE = { fill: "none", stroke: "currentColor", strokeWidth: 1.6 };

/** The shapes by which findings are told apart: shape and word first, tint second. */
const SHAPES: Record<FindingKind, ReactNode> = {
  breached: (
    <>
      <path d="M8 1 15 8 8 15 1 8Z" fill="currentColor" />
      <path d="M5 8h6" stroke="var(--ground)" strokeWidth="1.6" />
    </>
  ),
  unexplained_change: (
    <>
      <path d="M2 3.5h12v9H2Z" {...LINE} />
      <path d="M6 6.2a2 2 0 1 1 2 2.3v.8M8 10.4v1" {...LINE} />
    </>
  ),
  notice: <path d="M2 3h12v8H8l-4 3.5V11H2ZM5 7h6" {...LINE} />,
  no_second_factor: (
    <>
      <path d="M8 1.5v5" {...LINE} strokeWidth="2.4" />
      <path d="M8 9.5v5" {...LINE} strokeDasharray="1.6 1.6" />
    </>
  ),
  weak: <path d="M1 13 8 4l7 9" {...LINE} strokeDasharray="2.4 2" />,
  reused: (
    <>
      <circle cx="6" cy="8" r="4.2" {...LINE} />
      <circle cx="10" cy="8" r="4.2" {...LINE} />
    </>
  ),
  like_passphrase: (
    <>
      <path d="M2 8a3.4 3.4 0 1 1 6.8 0A3.4 3.4 0 1 1 2 8m6.8 0H15m-3 0v3.4" {...LINE} />
    </>
  ),
  similar: (
    <>
      <circle cx="5.4" cy="8" r="4" {...LINE} />
      <circle cx="10.6" cy="8" r="4" {...LINE} strokeDasharray="2 1.8" />
    </>
  ),
  off_policy: (
    <>
      <path d="M2 3.5h12M2 12.5h12" {...LINE} />
      <path d="M5 15 11 1" {...LINE} />
    </>
  ),
  unfinished: <path d="M1 8h5m4 0h5" {...LINE} stroke="var(--copper)" strokeWidth="2.4" />,
  overdue: <path d="M3 1.5h10M3 14.5h10M4 2l8 12M12 2 4 14" {...LINE} />,
  plain_http: (
    <>
      <path d="M1 8h9M7 4.5 10.5 8 7 11.5" {...LINE} />
      <path d="M13.5 2v12" {...LINE} strokeDasharray="2 2" />
    </>
  ),
};

/** The shape of a kind, beside its word. */
export function FindingShape({ kind }: { kind: FindingKind }) {
  return (
    <svg
      width="16"
      height="16"
      viewBox="0 0 16 16"
      aria-hidden="true"
      className={kind === "breached" ? "grave" : undefined}
    >
      {SHAPES[kind]}
    </svg>
  );
}

/** The product's mark: a bend of two ropes. */
export function KnotMark() {
  return (
    <svg width="28" height="18" viewBox="0 0 28 18" fill="none" aria-hidden="true">
      <path
        d="M1 13c6 0 7-9 13-9 5 0 6 7 1 8-4 .8-6-3-3-6"
        stroke="var(--ink)"
        strokeWidth="2.2"
        strokeLinecap="round"
      />
      <path
        d="M27 6c-6 0-8 8-14 8"
        stroke="var(--copper)"
        strokeWidth="2.2"
        strokeLinecap="round"
      />
    </svg>
  );
}
