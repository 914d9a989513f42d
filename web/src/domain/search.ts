/** Find as you type: every word typed has to stand somewhere in the login. */
type Searchable = {
  title: string;
  user_name: string;
  address: string;
  folder: string;
  owner: string;
  tags: string[];
};

export function folded(text: string): string {
  return text.normalize("NFD").replace(/\p{M}/gu, "").toLowerCase();
}

export function haystack(login: Searchable): string {
  return folded(
    [login.title, login.user_name, login.address, login.folder, login.owner, ...login.tags].join(
      "\n",
    ),
  );
}

/** Titles that begin as typed come first, then those that hold it, then the rest. */
export function nearest<T extends { title: string }>(found: T[], typed: string): T[] {
  const sought = folded(typed.trim());
  const rank = (title: string) => {
    const at = folded(title).indexOf(sought);
    return at === 0 ? 0 : at > 0 ? 1 : 2;
  };
  return [...found].sort((a, b) => rank(a.title) - rank(b.title));
}

export function matches(hay: string, typed: string): boolean {
  return folded(typed)
    .split(/\s+/)
    .every((word) => hay.includes(word));
}
