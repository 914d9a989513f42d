import type { Schema } from "../../api/client";

export type Choice = "leave" | "also" | "take";
type Row = Schema["ImportRowOut"];

export const SECRET = "secret";

/** What is to become of the rows of a file. not: new ones that stay out; of: those that differ, or
 * are in the file twice; without: fields that are not taken of a row. */
export type Choices = {
  not: Set<number>;
  of: Map<number, Choice>;
  without: Map<number, Set<string>>;
};

export const NO_CHOICES: Choices = { not: new Set(), of: new Map(), without: new Map() };

/** The fields that the login there can take from a row. */
export function takeable(row: Row): string[] {
  if (!row.can_take_fields) return [];
  return row.differs.map((one) => one.field).filter((field) => field !== SECRET || row.can_take);
}

/** The rows of one choice, in the order of the file. */
export function chosen(rows: Row[], choices: Choices, choice: Choice): Row[] {
  return rows.filter(
    (row) =>
      (row.status === "differing" || row.status === "twice") &&
      (choices.of.get(row.line) ?? "leave") === choice,
  );
}

/** What the server is told of them. */
export function applied(rows: Row[], choices: Choices) {
  const taken = chosen(rows, choices, "take").map((row) => ({
    line: row.line,
    fields: takeable(row).filter((field) => !choices.without.get(row.line)?.has(field)),
  }));
  return {
    also_lines: chosen(rows, choices, "also").map((row) => row.line),
    take_fields: taken.filter((one) => one.fields.length > 0),
    not_lines: [...choices.not],
  };
}
