/** What is known of a login before its form opens: handed over in memory, never in the address. */
export type LoginSeed = { title: string; address: string };

let waiting: LoginSeed | null = null;

export function offerSeed(seed: LoginSeed): void {
  waiting = seed;
}

/** The seed that waits. A render may be thrown away, so looking takes nothing. */
export function waitingSeed(): LoginSeed | null {
  return waiting;
}

/** Called once a form stands with it. */
export function seedTaken(): void {
  waiting = null;
}
