import type { FindingKind } from "../domain/findings";

/** The shapes by which findings are told apart: shape and word first, tint second. */
export function FindingShape({ kind }: { kind: FindingKind }) {
  const line = { fill: "none", stroke: "currentColor", strokeWidth: 1.6 };
  return (
    <svg
      width="16"
      height="16"
      viewBox="0 0 16 16"
      aria-hidden="true"
      className={kind === "breached" ? "grave" : undefined}
    >
      {kind === "breached" && (
        <>
          <path d="M8 1 15 8 8 15 1 8Z" fill="currentColor" />
          <path d="M5 8h6" stroke="var(--ground)" strokeWidth="1.6" />
        </>
      )}
      {kind === "unexplained_change" && (
        <>
          <path d="M2 3.5h12v9H2Z" {...line} />
          <path d="M6 6.2a2 2 0 1 1 2 2.3v.8M8 10.4v1" {...line} />
        </>
      )}
      {kind === "notice" && <path d="M2 3h12v8H8l-4 3.5V11H2ZM5 7h6" {...line} />}
      {kind === "no_second_factor" && (
        <>
          <path d="M8 1.5v5" {...line} strokeWidth="2.4" />
          <path d="M8 9.5v5" {...line} strokeDasharray="1.6 1.6" />
        </>
      )}
      {kind === "weak" && <path d="M1 13 8 4l7 9" {...line} strokeDasharray="2.4 2" />}
      {kind === "reused" && (
        <>
          <circle cx="6" cy="8" r="4.2" {...line} />
          <circle cx="10" cy="8" r="4.2" {...line} />
        </>
      )}
      {kind === "like_passphrase" && (
        <>
          <path d="M2 8a3.4 3.4 0 1 1 6.8 0A3.4 3.4 0 1 1 2 8m6.8 0H15m-3 0v3.4" {...line} />
        </>
      )}
      {kind === "similar" && (
        <>
          <circle cx="5.4" cy="8" r="4" {...line} />
          <circle cx="10.6" cy="8" r="4" {...line} strokeDasharray="2 1.8" />
        </>
      )}
      {kind === "off_policy" && (
        <>
          <path d="M2 3.5h12M2 12.5h12" {...line} />
          <path d="M5 15 11 1" {...line} />
        </>
      )}
      {kind === "unfinished" && (
        <path d="M1 8h5m4 0h5" {...line} stroke="var(--copper)" strokeWidth="2.4" />
      )}
      {kind === "overdue" && <path d="M3 1.5h10M3 14.5h10M4 2l8 12M12 2 4 14" {...line} />}
      {kind === "plain_http" && (
        <>
          <path d="M1 8h9M7 4.5 10.5 8 7 11.5" {...line} />
          <path d="M13.5 2v12" {...line} strokeDasharray="2 2" />
        </>
      )}
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
