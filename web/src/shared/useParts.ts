import { useQueries, type UseQueryOptions } from "@tanstack/react-query";

/** Rows of a part, and how many there are in all. */
export const PART = 60;

type Part<Row> = { rows: Row[] };

/** The rows in view of a long list, of which the server gives parts as they are scrolled to. */
export function useParts<Row, P extends Part<Row>>(
  indexes: number[],
  query: (part: number) => UseQueryOptions<P, Error, P, string[]>,
): (index: number) => Row | undefined {
  const parts = [...new Set(indexes.map((index) => Math.floor(index / PART)))].sort(
    (a, b) => a - b,
  );
  const found = useQueries({ queries: parts.map(query) });
  return (index) => found[parts.indexOf(Math.floor(index / PART))]?.data?.rows[index % PART];
}
