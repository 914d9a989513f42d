/** Views and acts as data: one list feeds the keys, the command box and the key sheet. */
export type View = { path: string; label: string; key: string };

export const VIEWS: View[] = [
  { path: "/", label: "Worklist", key: "1" },
  { path: "/logins", label: "Logins", key: "2" },
  { path: "/generate", label: "Generate", key: "3" },
  { path: "/rotate", label: "Rotate", key: "4" },
  { path: "/policies", label: "Site policies", key: "5" },
];

export const FURTHER: View[] = [
  { path: "/carry", label: "Carry and recover", key: "6" },
  { path: "/safeguards", label: "Settings and safeguards", key: "7" },
  { path: "/logins/bin", label: "Bin", key: "8" },
  { path: "/measure", label: "Measure a secret of your own", key: "9" },
  { path: "/reach", label: "Reuse map", key: "m" },
  { path: "/report", label: "Report", key: "t" },
  { path: "/address", label: "Whose address is this?", key: "i" },
  { path: "/events", label: "Events", key: "v" },
  { path: "/waivers", label: "Accepted findings", key: "a" },
  { path: "/passphrase", label: "The vault's passphrase", key: "0" },
];

export const KEY_SHEET: { where: string; keys: [string, string][] }[] = [
  {
    where: "Everywhere",
    keys: [
      ["1 … 9, 0, A, I, M, T, V", "go to a view"],
      ["/ or Ctrl K", "find a login, or do something"],
      ["L", "lock the vault"],
      ["?", "this sheet"],
      ["Esc", "close, or back to the list"],
    ],
  },
  {
    where: "Worklist",
    keys: [
      ["↑ ↓  Home  End", "move"],
      ["Enter", "open the login"],
      ["R", "what it needs first: rotate, set up its codes, correct the address, finish"],
      ["G", "rotate it with those that share its secret"],
      ["W", "accept its finding for a reason"],
      ["C", "check again"],
    ],
  },
  {
    where: "Logins, and a login's sheet",
    keys: [
      ["↑ ↓  Enter", "move, open"],
      ["U", "copy the user name"],
      ["Y", "copy the secret"],
      ["C", "copy the code of its second factor"],
      ["S", "sign in: the steps beside the site"],
      ["O", "open the site"],
      ["H", "show or hide the secret"],
      ["E", "edit"],
      ["R", "rotate"],
      ["N", "a new login"],
      ["B", "on the sheet: go back to the secret before this one"],
      ["Del", "to the bin"],
    ],
  },
  {
    where: "Find a login, on the line that is current",
    keys: [
      ["Alt U", "copy the user name"],
      ["Alt Y", "copy the secret"],
    ],
  },
  {
    where: "Sign-in beside the site",
    keys: [
      ["1", "open the site"],
      ["2", "copy the user name"],
      ["3", "copy the secret"],
      ["4", "copy the code"],
      ["H", "show or hide the secret"],
      ["P", "spell it out"],
      ["W", "the steps in a small window, and back"],
    ],
  },
  {
    where: "Rotate",
    keys: [["N", "a new campaign"]],
  },
  {
    where: "Site policies",
    keys: [
      ["F", "find one by its name or site"],
      ["↑ ↓  Enter", "move, change"],
      ["N", "a new policy"],
    ],
  },
  {
    where: "Carry and recover",
    keys: [
      ["B  O  K  W", "bring in, take out, back up, way back in"],
      ["F", "bring in: choose the file"],
      ["N", "back up: a backup now; way back in: one recovery sheet"],
    ],
  },
  {
    where: "Generate",
    keys: [
      ["Y", "copy"],
      ["Space", "draw again"],
      ["←", "the earlier draw"],
      ["S", "spell it out"],
      ["B", "side by side"],
      ["P", "place in a login"],
    ],
  },
  {
    where: "Hand-over",
    keys: [
      ["U", "copy the user name"],
      ["1", "copy the current secret"],
      ["2", "open the site"],
      ["3", "copy the new secret"],
      ["P", "spell the new secret out, for sites that block pasting"],
      ["D", "draw another"],
      ["H", "show or hide the new secret"],
      ["Y  N  S", "the site took it: yes, no, not sure"],
      ["V", "signed in with it"],
      ["B", "copy the former secret"],
      ["W", "the steps in a small window beside the site, and back"],
      ["C", "copy the code of its second factor"],
      ["G", "let New Knot do it, where that is switched on"],
    ],
  },
];
