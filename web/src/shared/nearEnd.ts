const NEAR_PX = 120;

/** Whether a box is scrolled so far that the next of what it holds is wanted. */
export function isNearEnd(box: Element): boolean {
  return box.scrollHeight - box.scrollTop - box.clientHeight < NEAR_PX;
}
