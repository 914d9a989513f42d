import { memo, useLayoutEffect, useRef, type RefObject } from "react";
import { useNavigate } from "react-router";
import { answer, client, type Schema } from "../../api/client";
import { queries, type Facet } from "../../api/queries";
import { count } from "../../domain/moments";
import { useRemembered } from "../../shared/remembered";
import { useKeys } from "../../shared/useKeys";
import { useParts } from "../../shared/useParts";
import { useRowPointer } from "../../shared/useRowPointer";
import { useVirtualRows } from "../../shared/useVirtualRows";
import type { ToWaive } from "./WaiveDialog";
import { WorkRowLine, WorkRowOpened } from "./WorkRow";

type WorkRow = Schema["WorkRow"];

const PAGE = 10;

type Props = {
  data: Schema["WorkRows"];
  facet: Facet | null;
  now: number;
  busy: boolean;
  onRotate: (login_id: string) => void;
  onCampaign: (wish: Schema["FacetIn"]) => void;
  onWaive: (finding: ToWaive) => void;
};

/** The rows, of which one is current and opened: a step from row to row draws these alone. */
export function WorkGrid({ data, facet, now, busy, onRotate, onCampaign, onWaive }: Props) {
  const navigate = useNavigate();
  const [at, setAt] = useRemembered(`worklist ${facet ?? "all"}`, 0);
  const here = Math.min(at, Math.max(0, data.total - 1));
  const scroller = useRef<HTMLDivElement>(null);
  const size = (i: number) => (i === here ? 130 : 54);
  const { items, container, measure } = useVirtualRows(scroller, data.total, here, size);
  const rowAt = useParts<WorkRow, Schema["WorkRows"]>(
    [here, ...items.map((item) => item.index)],
    (part) => queries.workRows(facet, part),
    data.rows,
  );
  const row = rowAt(here);

  const act = (one: WorkRow | undefined, asked?: Schema["Need"]) => {
    if (!one) return;
    const need = asked ?? one.needs[0];
    if (one.kind === "group") onCampaign({ row_id: one.row_id });
    else if (one.loose_end_id) void navigate("/generate");
    else if (one.rotation_id && !asked) void navigate(`/rotate/${one.rotation_id}`);
    else if (need === "new_secret" && one.login_id) onRotate(one.login_id);
    else if (need === "address" || need === "field") void navigate(`/logins/${one.login_id}/edit`);
    else if (need === "second_factor")
      void navigate(`/logins/${one.login_id}`, { state: { setUp: true } });
    else void navigate(`/logins/${one.login_id}`);
  };
  const open = (one: WorkRow | undefined) =>
    one && void navigate(one.login_id ? `/logins/${one.login_id}` : "/generate");
  const together = (one: WorkRow | undefined) => {
    if (one?.kind === "group") onCampaign({ row_id: one.row_id });
    else if (one?.login_id && one.shares_count) onCampaign({ sharing_with: one.login_id });
  };
  const waive = async (one: WorkRow | undefined, finding = leadOf(one, facet)) => {
    if (!one?.login_id || !finding) return;
    const asked = { row_id: one.row_id, facet: finding.kind };
    const login_ids =
      one.kind === "group"
        ? (await answer(client.POST("/checks/worklist/logins", { body: asked }))).login_ids
        : [one.login_id];
    const title = one.kind === "group" ? count(login_ids.length, "login") : one.title;
    onWaive({ kind: finding.kind, evidence: finding.evidence, title, login_ids });
  };
  const move = (to: number) => setAt(Math.max(0, Math.min(data.total - 1, to)));
  useRowPointer(scroller, { choose: setAt, open: (index) => open(rowAt(index)) });
  useKeys({
    ArrowDown: () => move(here + 1),
    ArrowUp: () => move(here - 1),
    PageDown: () => move(here + PAGE),
    PageUp: () => move(here - PAGE),
    Home: () => move(0),
    End: () => move(data.total - 1),
    Enter: () => open(row),
    r: () => act(row),
    g: () => together(row),
    w: () => void waive(row),
  });

  const isLastOfFirst = (index: number) =>
    index === data.first_rows - 1 && data.first_rows < data.total;
  const firstNote = facet
    ? "above: what comes first"
    : `above: the ${data.first.toLocaleString("en")} that come first`;
  const acts: RowActs = { act, open, together, waive: (one, f) => void waive(one, f) };
  // As they are when one is asked for: that they are made anew draws no row.
  const latest = useRef(acts);
  useLayoutEffect(() => {
    latest.current = acts;
  });

  return (
    <div
      ref={scroller}
      role="grid"
      aria-rowcount={data.total}
      tabIndex={0}
      aria-label="Logins to see to"
      aria-activedescendant={row ? `work-${row.row_id}` : undefined}
      className="scrolls"
    >
      <div role="presentation" ref={container} className="holds-rows">
        {items.map(({ index }) => {
          const one = rowAt(index);
          return (
            <GridRow
              key={index}
              index={index}
              one={one}
              lead={leadOf(one, facet)}
              now={now}
              measure={measure}
              note={isLastOfFirst(index) ? firstNote : undefined}
              acts={index === here ? latest : undefined}
              busy={index === here && busy}
            />
          );
        })}
      </div>
    </div>
  );
}

type RowActs = {
  act: (one: WorkRow, need?: Schema["Need"]) => void;
  open: (one: WorkRow) => void;
  together: (one: WorkRow) => void;
  waive: (one: WorkRow, finding: WorkRow["findings"][number]) => void;
};

type RowProps = {
  index: number;
  one: WorkRow | undefined;
  lead: WorkRow["findings"][number] | undefined;
  now: number;
  measure: (element: HTMLDivElement | null) => void;
  /** What stands below the last of those that come first. */
  note: string | undefined;
  /** Of the current row alone, so that a step draws two rows. */
  acts: RefObject<RowActs> | undefined;
  busy: boolean;
};

const GridRow = memo(function GridRow(props: RowProps) {
  const { index, one, lead, now, measure, note, acts, busy } = props;
  return (
    <div
      id={one ? `work-${one.row_id}` : undefined}
      role="row"
      aria-rowindex={index + 1}
      ref={measure}
      data-index={index}
      aria-selected={acts !== undefined}
      className={["item", acts && "at", note && "last-of-first"].filter(Boolean).join(" ")}
    >
      {one ? (
        <WorkRowLine row={one} lead={lead} isOpen={acts !== undefined} now={now} />
      ) : (
        <span role="gridcell" className="quiet small">
          …
        </span>
      )}
      {one && acts && (
        <WorkRowOpened
          key={one.row_id}
          row={one}
          busy={busy}
          onAct={(need) => acts.current.act(one, need)}
          onOpen={() => acts.current.open(one)}
          onTogether={() => acts.current.together(one)}
          onAccept={(finding) => acts.current.waive(one, finding)}
        />
      )}
      {note && (
        <p className="first-line small quiet" aria-hidden="true">
          {note}
        </p>
      )}
    </div>
  );
});

/** What a row leads with: the finding that was asked for, else the gravest. */
function leadOf(row: WorkRow | undefined, facet: Facet | null) {
  return row?.findings.find((f) => f.kind === facet) ?? row?.findings[0];
}
