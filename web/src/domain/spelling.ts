/** Names by which a character is said over the telephone (ICAO spelling alphabet). */
const LETTERS =
  "alfa bravo charlie delta echo foxtrot golf hotel india juliett kilo lima mike november oscar papa quebec romeo sierra tango uniform victor whiskey x-ray yankee zulu".split(
    " ",
  );
const DIGITS = "zero one two three four five six seven eight nine".split(" ");
const MARKS: Record<string, string> = {
  " ": "blank",
  "!": "exclamation mark",
  '"': "double quote",
  "#": "number sign",
  $: "dollar sign",
  "%": "per cent sign",
  "&": "and sign",
  "'": "apostrophe",
  "(": "opening bracket",
  ")": "closing bracket",
  "*": "asterisk",
  "+": "plus",
  ",": "comma",
  "-": "hyphen",
  ".": "stop",
  "/": "slash",
  ":": "colon",
  ";": "semicolon",
  "<": "less-than sign",
  "=": "equals sign",
  ">": "greater-than sign",
  "?": "question mark",
  "@": "at sign",
  "[": "opening square bracket",
  "\\": "backslash",
  "]": "closing square bracket",
  "^": "circumflex",
  _: "underscore",
  "`": "backquote",
  "{": "opening brace",
  "|": "upright bar",
  "}": "closing brace",
  "~": "tilde",
};

/** How one character is said: `capital B, bravo`. */
export function spelled(character: string): string {
  const low = character.toLowerCase();
  if (/^[a-z]$/.test(low)) {
    const name = LETTERS[low.charCodeAt(0) - 97] ?? low;
    return character === low ? `${low}, ${name}` : `capital ${character}, ${name}`;
  }
  if (/^[0-9]$/.test(character)) return DIGITS[Number(character)] ?? character;
  return MARKS[character] ?? `the character ${character}`;
}
