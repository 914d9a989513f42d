/** Forms that hold changes which are not saved: who would leave one of them is asked first. */

/** By the form's name, how what it holds is thrown away. */
const forms = new Map<string, () => Promise<void>>();

/** What is asked now: the forms that would be left, and what goes on then. */
export type Leaving = { forms: string[]; goOn: () => void };
let ask: ((leaving: Leaving) => void) | null = null;

export function noteUnsaved(form: string, throwAway: () => Promise<void>): void {
  forms.set(form, throwAway);
}

export function noteSaved(form: string): void {
  forms.delete(form);
}

export function unsavedForms(): string[] {
  return [...forms.keys()];
}

export async function throwAway(names: string[]): Promise<void> {
  const acts = names.map((name) => forms.get(name));
  names.forEach(noteSaved);
  await Promise.all(acts.map((act) => act?.()));
}

/** Goes on at once where the form holds nothing that is not saved; else it is asked first. */
export function leave(form: string, goOn: () => void): void {
  if (ask !== null && forms.has(form)) ask({ forms: [form], goOn });
  else goOn();
}

/** Who asks, while the views are there. */
export function onLeaving(asks: (leaving: Leaving) => void): () => void {
  ask = asks;
  return () => {
    ask = null;
  };
}
