import { useQuery } from "@tanstack/react-query";
import { Input, Select } from "antd";
import { useMemo, useRef, useState } from "react";
import { Link } from "react-router";
import type { Schema } from "../../api/client";
import { queries } from "../../api/queries";
import { count, dayAndTime } from "../../domain/moments";
import { ProblemNote } from "../../shared/ProblemNote";
import { useVirtualRows } from "../../shared/useVirtualRows";
import { useNow } from "../../shared/useNow";

const KINDS: Record<Schema["EventKind"], string> = {
  login: "logins",
  secret: "secrets replaced",
  rotation: "rotations",
  waiver: "findings accepted",
  check: "checks",
  backup: "backups",
  access: "secrets shown, copied, taken out",
};

/** What happened, when, and to which login: told from what is kept, never a secret. */
export default function EventsPage() {
  const { data, error } = useQuery(queries.events());
  const [text, setText] = useState("");
  const [kind, setKind] = useState<Schema["EventKind"] | null>(null);
  const now = useNow();
  const events = useMemo(() => {
    const sought = text.trim().toLowerCase();
    return (data ?? []).filter(
      (e) =>
        (kind === null || e.kind === kind) &&
        `${e.title ?? ""} ${e.says}`.toLowerCase().includes(sought),
    );
  }, [data, text, kind]);
  const scroller = useRef<HTMLDivElement>(null);
  const { items, container, measure } = useVirtualRows(scroller, events.length, 0, () => 36);

  return (
    <main className="page fills-height">
      <header className="row spread below-14">
        <h1>Events</h1>
        <div className="row">
          <Select<Schema["EventKind"] | "all">
            aria-label="Kind of event"
            value={kind ?? "all"}
            className="wide-260"
            onChange={(value) => setKind(value === "all" ? null : value)}
            options={[
              { value: "all", label: "everything" },
              ...(Object.keys(KINDS) as Schema["EventKind"][]).map((value) => ({
                value,
                label: KINDS[value],
              })),
            ]}
          />
          <Input
            aria-label="Find in the events"
            placeholder="Find a login or an event"
            value={text}
            autoComplete="off"
            spellCheck={false}
            className="wide-260"
            onChange={(event) => setText(event.target.value)}
          />
        </div>
      </header>
      <ProblemNote problem={error} />
      <p className="small quiet below-8">{data ? count(events.length, "event") : "…"}</p>
      {data?.length === 0 && (
        <div className="empty">
          <h2>Nothing has happened yet</h2>
          <p>
            Here stands what was shown, copied, changed, rotated and checked, and when; never a
            secret. It begins with <Link to="/logins/new">a first login</Link> or{" "}
            <Link to="/carry">a file brought in</Link>.
          </p>
        </div>
      )}
      {data !== undefined && data.length > 0 && events.length === 0 && (
        <p className="quiet">None of them fits what you look for.</p>
      )}
      <div
        ref={scroller}
        role="list"
        aria-label="Events, newest first"
        tabIndex={0}
        className="scrolls"
      >
        <div ref={container} className="holds-rows">
          {items.map(({ index }) => {
            const event = events[index];
            if (!event) return null;
            return (
              <div key={index} role="listitem" ref={measure} data-index={index} className="item">
                <div className="cols event-cols">
                  <span className="small quiet">{dayAndTime(event.at, now)}</span>
                  <span className="name">
                    {event.login_id && event.title ? (
                      <Link to={`/logins/${event.login_id}`}>{event.title}</Link>
                    ) : (
                      <span className="quiet">the vault</span>
                    )}
                  </span>
                  <span>{event.says}</span>
                </div>
              </div>
            );
          })}
        </div>
      </div>
    </main>
  );
}
