/** Find as you type: every word typed has to stand somewhere. */
function folded(text: string): string {
  return text.normalize("NFD").replace(/\p{M}/gu, "").toLowerCase();
}

export function matches(text: string, typed: string): boolean {
  const hay = folded(text);
  return folded(typed)
    .split(/\s+/)
    .every((word) => hay.includes(word));
}
