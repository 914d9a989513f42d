/** What is known of the clipboard: what was put there from here, when, and what is due. */
export type Clip = {
  what: string;
  putAt: number;
  /** When it is to be emptied; null where that is switched off. */
  dueAt: number | null;
  /** `waiting`: due, but the window is not in front. */
  state: "there" | "waiting" | "emptied" | "replaced";
};

export function put(what: string, now: number, clearAfterS: number): Clip {
  return { what, putAt: now, dueAt: clearAfterS ? now + clearAfterS * 1000 : null, state: "there" };
}

/** Whether it is time to empty it; only while it can still be ours. */
export function isDue(clip: Clip, now: number): boolean {
  const open = clip.state === "there" || clip.state === "waiting";
  return open && clip.dueAt !== null && now >= clip.dueAt;
}

/** What can truthfully be said: never what is on it now, only what was put there and when. */
export function said(clip: Clip, now: number): string {
  const ago = Math.max(0, Math.round((now - clip.putAt) / 1000));
  const head = `${clip.what} put on the clipboard ${ago} s ago`;
  switch (clip.state) {
    case "there":
      return clip.dueAt === null
        ? `${head}; it is not emptied`
        : `${head}; emptied in ${Math.max(0, Math.ceil((clip.dueAt - now) / 1000))} s`;
    case "waiting":
      return `${head}; emptied as soon as this window is in front`;
    case "emptied":
      return `${clip.what} was put on the clipboard; it has been emptied`;
    case "replaced":
      return `${head}; something else was copied here since`;
  }
}
