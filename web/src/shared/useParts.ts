import { useQueries, type UseQueryOptions } from "@tanstack/react-query";
import { PART } from "../api/queries";

type Part<Row> = { rows: Row[] };

/** The rows in view of a long list, of which the server gives parts as they are scrolled to.
 * meanwhile: the first part as it was, until it is there. */
export function useParts<Row, P extends Part<Row>>(
  indexes: number[],
  query: (part: number) => UseQueryOptions<P, Error, P, string[]>,
  meanwhile: Row[] | undefined,
): (index: number) => Row | undefined {
  const parts = [...new Set(indexes.map((index) => Math.floor(index / PART)))].sort(
    (a, b) => a - b,
  );
  const found = useQueries({ queries: parts.map(query) });
  return (index) => {
    const part = found[parts.indexOf(Math.floor(index / PART))];
    return part?.data ? part.data.rows[index % PART] : meanwhile?.[index];
  };
}
