import { useRef, type ReactNode } from "react";
import { useVirtualRows } from "./useVirtualRows";

/** A table of any length: every row can be scrolled to, and only those in view are in the page. */
export function ManyRows<Row>(props: {
  label: string;
  columns: string;
  heads: string[];
  rows: readonly Row[];
  /** The cells of a row, one for each head. */
  cells: (row: Row) => ReactNode[];
}) {
  const scroller = useRef<HTMLDivElement>(null);
  const { items, container, measure } = useVirtualRows(scroller, props.rows.length, 0, () => 34);
  const columns = { gridTemplateColumns: props.columns };
  return (
    <div
      ref={scroller}
      role="region"
      aria-label={`${props.label}, scrolled by keys`}
      tabIndex={0}
      className="many-rows small"
    >
      <div role="table" aria-label={props.label} aria-rowcount={props.rows.length + 1}>
        <div role="row" aria-rowindex={1} className="many-rows-head" style={columns}>
          {props.heads.map((head) => (
            <span role="columnheader" key={head}>
              {head}
            </span>
          ))}
        </div>
        <div role="rowgroup" ref={container} className="holds-rows">
          {items.map(({ index }) => {
            const row = props.rows[index];
            if (row === undefined) return null;
            return (
              <div
                role="row"
                key={index}
                aria-rowindex={index + 2}
                ref={measure}
                data-index={index}
                className="many-rows-row"
                style={columns}
              >
                {props.cells(row).map((cell, at) => (
                  <span role="cell" key={props.heads[at]}>
                    {cell}
                  </span>
                ))}
              </div>
            );
          })}
        </div>
      </div>
    </div>
  );
}
