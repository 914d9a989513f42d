import { classLabel, type Policy, type PolicyClass } from "./policy";

/** One rule that two policies of a site have otherwise, each side in words. */
export type PartedRule = { key: string; label: string; here: string; there: string };

const LABELS: Record<string, string> = {
  min_length: "Least length",
  max_length: "Greatest length",
  min_classes: "Kinds of character, at least",
  excluded: "Characters that it refuses",
  max_age_days: "Change after days",
  history_depth: "Remembers the last",
  max_identical_run: "Alike in a row, at most",
  max_sequence_run: "In sequence, at most",
  max_uses: "Uses of one character, at most",
  distinct: "Each character once",
  first_from: "Begins with one of",
  last_from: "Ends with one of",
  forbidden: "Forbidden texts",
  folds_case: "Upper and lower case alike",
  keeps_first: "Keeps only the first",
};
const CLASS = "class ";

/** The rules in which they part, in the order of the form. */
export function partedRules(here: Policy, there: Policy): PartedRule[] {
  const rules = Object.keys(LABELS).filter(
    (key) => JSON.stringify(here[key] ?? null) !== JSON.stringify(there[key] ?? null),
  );
  const names = new Set([...here.classes, ...there.classes].map((one) => one.name));
  const classes = [...names].filter(
    (name) => JSON.stringify(classOf(here, name)) !== JSON.stringify(classOf(there, name)),
  );
  return [
    ...rules.map((key) => ({
      key,
      label: LABELS[key] ?? key,
      here: said(here[key]),
      there: said(there[key]),
    })),
    ...classes.map((name) => ({
      key: CLASS + name,
      label: classLabel(name),
      here: saidClass(classOf(here, name)),
      there: saidClass(classOf(there, name)),
    })),
  ];
}

/** The policy here with these rules of the other. */
export function withRules(here: Policy, there: Policy, taken: ReadonlySet<string>): Policy {
  const rules = Object.fromEntries(
    [...taken].filter((key) => !key.startsWith(CLASS)).map((key) => [key, there[key] ?? null]),
  );
  const isTaken = (name: string) => taken.has(CLASS + name);
  const kept = here.classes.filter((one) => !isTaken(one.name));
  const classes = [...kept, ...there.classes.filter((one) => isTaken(one.name))];
  return { ...here, ...rules, classes };
}

function classOf(policy: Policy, name: string): PolicyClass | null {
  return policy.classes.find((one) => one.name === name) ?? null;
}

function said(value: unknown): string {
  if (value === null || value === undefined || value === 0 || value === "") return "no such rule";
  if (Array.isArray(value)) return value.length ? value.join(", ") : "no such rule";
  if (typeof value === "boolean") return value ? "yes" : "no";
  return typeof value === "number" ? value.toLocaleString("en") : JSON.stringify(value);
}

function saidClass(one: PolicyClass | null): string {
  if (!one) return "not taken";
  const least = one.minimum ? `, at least ${one.minimum}` : "";
  const most = one.maximum ? `, at most ${one.maximum}` : "";
  return `${one.characters}${least}${most}`;
}
