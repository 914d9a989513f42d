/** The part of a site policy that the form changes, and its sentence. */
export type PolicyClass = {
  name: string;
  characters: string;
  minimum: number;
  maximum?: number | null;
};

export type Policy = {
  min_length: number;
  max_length: number;
  classes: PolicyClass[];
  min_classes: number;
  excluded: string;
  max_age_days: number | null;
  history_depth?: number | null;
  max_identical_run?: number | null;
  max_sequence_run?: number | null;
  max_uses?: number | null;
  distinct?: boolean;
  first_from?: string | null;
  last_from?: string | null;
  forbidden?: string[];
  folds_case?: boolean;
  keeps_first?: number | null;
  [rule: string]: unknown;
};

export const STANDARD: Record<string, { label: string; characters: string }> = {
  lower: { label: "Lower case", characters: "abcdefghijklmnopqrstuvwxyz" },
  upper: { label: "Upper case", characters: "ABCDEFGHIJKLMNOPQRSTUVWXYZ" },
  digit: { label: "Digits", characters: "0123456789" },
  symbol: { label: "Symbols", characters: "!\"#$%&'()*+,-./:;<=>?@[\\]^_`{|}~" },
};

export function classLabel(name: string): string {
  return STANDARD[name]?.label ?? name.charAt(0).toUpperCase() + name.slice(1);
}

/** The policy with one class changed; a class that is switched off is left out. */
export function withClass(policy: Policy, name: string, next: PolicyClass | null): Policy {
  const order = Object.keys(STANDARD);
  const others = policy.classes.filter((c) => c.name !== name);
  const classes = next ? [...others, next] : others;
  classes.sort((a, b) => order.indexOf(a.name) - order.indexOf(b.name));
  return { ...policy, classes };
}

/** Characters one by one, the blank by its name. */
function spelled(characters: string): string {
  return [...characters].map((c) => (c === " " ? "blank" : c)).join(" ");
}

/** Characters by the kinds that they are all of, else one by one. */
function named(characters: string): string {
  const kinds = Object.values(STANDARD).filter((kind) =>
    [...kind.characters].every((c) => characters.includes(c)),
  );
  const whole = kinds.reduce((sum, kind) => sum + kind.characters.length, 0);
  if (kinds.length > 0 && whole === characters.length)
    return kinds.map((kind) => kind.label.toLowerCase()).join(" or ");
  return spelled(characters);
}

/** Which characters of a kind: all, all but some, or these. */
function within(one: PolicyClass): string {
  const label = classLabel(one.name).toLowerCase();
  const all = STANDARD[one.name]?.characters ?? "";
  if (all === one.characters) return label;
  const missing = [...all].filter((c) => !one.characters.includes(c));
  const isPart = [...one.characters].every((c) => all.includes(c));
  if (isPart && missing.length < one.characters.length)
    return `${label} but ${spelled(missing.join(""))}`;
  return all ? `${label} ${spelled(one.characters)}` : `${label} from ${named(one.characters)}`;
}

/** One sentence for the whole policy. */
export function policySentence(policy: Policy): string {
  const length =
    policy.min_length === policy.max_length
      ? `${policy.min_length} characters`
      : `${policy.min_length} to ${policy.max_length} characters`;
  const kinds = policy.classes.map((c) => {
    const which = within(c);
    const least = c.minimum ? ` (at least ${c.minimum})` : "";
    const most = c.maximum != null ? ` (at most ${c.maximum})` : "";
    return which + least + most;
  });
  const parts = [`${length}: ${kinds.join(", ") || "nothing yet"}`];
  if (policy.min_classes) parts.push(`at least ${policy.min_classes} of these kinds`);
  if (policy.excluded) parts.push(`without ${spelled(policy.excluded)}`);
  if (policy.max_identical_run) parts.push(`at most ${policy.max_identical_run} alike in a row`);
  if (policy.max_sequence_run) parts.push(`no sequence beyond ${policy.max_sequence_run}`);
  if (policy.distinct) parts.push("no character twice");
  else if (policy.max_uses) parts.push(`no character more than ${policy.max_uses} times`);
  if (policy.first_from) parts.push(`begins with one of ${named(policy.first_from)}`);
  if (policy.last_from) parts.push(`ends with one of ${named(policy.last_from)}`);
  const words = policy.forbidden?.length ?? 0;
  if (words) parts.push(`without ${words} forbidden ${words === 1 ? "text" : "texts"}`);
  if (policy.folds_case) parts.push("upper and lower count alike");
  if (policy.keeps_first) parts.push(`only the first ${policy.keeps_first} count`);
  if (policy.history_depth) parts.push(`remembers the last ${policy.history_depth}`);
  if (policy.max_age_days) parts.push(`changed every ${policy.max_age_days} days`);
  return parts.join("; ") + ".";
}

/** `6.3 × 10^34` of a log10; what is a bound is rounded down. */
export function power(log10: number, isBound: boolean): { mantissa: string; exponent: number } {
  const exponent = Math.floor(log10);
  const tenths = 10 ** (log10 - exponent) * 10;
  const shown = isBound ? Math.floor(tenths + 1e-6) : Math.round(tenths);
  return shown < 100
    ? { mantissa: (shown / 10).toFixed(1), exponent }
    : { mantissa: "1.0", exponent: exponent + 1 };
}
