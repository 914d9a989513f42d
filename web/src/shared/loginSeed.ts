/** What is known of a login before its form opens: handed over in memory, never in the address. */
export type LoginSeed = { title: string; address: string };

let waiting: LoginSeed | null = null;

export function offerSeed(seed: LoginSeed): void {
  waiting = seed;
}

/** The seed, once. */
export function takeSeed(): LoginSeed | null {
  const seed = waiting;
  waiting = null;
  return seed;
}
