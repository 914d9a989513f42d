import { day } from "./moments";

/** The sentence on screen for each error code of the server. */
type Data = Record<string, unknown>;

const FIELDS: Record<string, string> = {
  title: "Title",
  user_name: "User name",
  address: "Address",
  notes: "Notes",
  secret: "Secret",
  owner: "Owner",
  folder: "Folder",
  resets_by: "Mailbox that resets it",
  min_length: "Least length",
  max_length: "Greatest length",
  lock_after_s: "Lock after",
  clipboard_clear_s: "Clipboard seconds",
  proof_minutes: "Proof minutes",
  domains: "Sites",
  name: "Name",
  code_key: "Key of the codes",
  range_address: "Address of the list held elsewhere",
  feed_address: "Address of the notice feed",
  length: "Length",
};

function fieldName(path: unknown): string {
  const text = String(path ?? "");
  return FIELDS[text] ?? FIELDS[text.split(".")[0] ?? ""] ?? text.replaceAll("_", " ");
}

const SENTENCES: Record<string, (data: Data) => string> = {
  field_invalid: (d) => `${fieldName(d.field)} ${String(d.reason)}.`,
  secret_repeats: (d) =>
    d.how === "remembered"
      ? `The site remembers the last ${String(d.depth)} with the current one, and this served until ${day(String(d.until_at))}: it would not be taken.`
      : `This is ${d.how === "same" ? "the same as" : "like"} ${d.until_at ? `a secret that served here until ${day(String(d.until_at))}` : "the current secret"}: take one that has nothing of it.`,
  secret_breaks_policy: (d) => `The policy of ${String(d.policy)} forbids it: ${String(d.says)}.`,
  policy_invalid: (d) => `Site policy: ${String(d.field)} ${String(d.reason)}.`,
  passphrase_too_weak: (d) =>
    d.is_bound
      ? "Nothing explains this passphrase, but if somebody guesses how it was made it falls within 10^10 guesses. Say that chance drew it, or choose a longer one."
      : `This passphrase falls within 10^${Number(d.guess_number_log10).toFixed(1)} guesses (${String(d.reasons)}). Choose one beyond 10^10.`,
  finding_unknown: () => "The last check has no such finding any more: check again.",
  passphrase_breached: () =>
    "This passphrase stands in the breach corpus: whoever holds such a list tries it first.",
  passphrase_resembles: (d) => {
    const logins = d.logins as string[];
    const what = [
      ...(d.earlier ? ["a passphrase this vault had"] : []),
      ...(logins.length ? [`the secret of ${logins.slice(0, 3).join(", ")}`] : []),
    ];
    return `This passphrase is like ${what.join(" and ")}. Choose one that has nothing of it.`;
  },
  length_refused: (d) => `The length has to be ${String(d.least)} to ${String(d.most)}.`,
  space_empty: (d) => `Nothing satisfies these rules: ${String(d.says)}.`,
  space_too_costly: (d) =>
    `Too little satisfies these rules together to draw from it in bounded time (${String(d.rule).replaceAll("_", " ")}).${d.frees ? ` It can be drawn ${String(d.frees)}.` : ""}`,
  limit_not_met: (d) =>
    `No text within the limit of uses came up in many draws (${String(d.rule).replaceAll("_", " ")}). Draw again, or take fewer words.`,
  work_too_great: (d) => `These rules would take too long to count (${String(d.rule)}).`,
  csv_refused: (d) =>
    Number(d.line) ? `Line ${String(d.line)}: ${String(d.reason)}.` : `${String(d.reason)}.`,
  policy_file_refused: (d) =>
    `The file was not taken${d.at ? `: ${String(d.at)}` : ", it"} ${String(d.reason)}.`,
  no_room: (d) => `The site leaves no room: ${String(d.says)}.`,
  phrase_too_costly: (d) =>
    `Texts of this shape would take too long to count under these rules (${String(d.rule).replaceAll("_", " ")}). A separator between the words makes it easy.`,
  not_worth_it: (d) =>
    `Nothing the site takes of this kind is worth more than ${String(d.bits)} bits.`,
  key_parameters_refused: () => "The key parameters are outside what is believed.",
  hash_list_refused: (d) => `The list ${String(d.list)} ${String(d.reason)}.`,
  corpus_build_stopped: () => "The build was stopped; it goes on from where it was.",
  outside_failed: (d) => `The service outside ${String(d.reason)}. What was known before stays.`,
  feed_refused: (d) => `What came from the feed ${String(d.reason)}. The notices before it stay.`,
  drive_off: () => "New Knot may not drive this site: switch it on in the login's form.",
  drive_running: () => "This rotation is being driven already.",
  drive_stopped: (d) => `The site ${String(d.reason)}.`,
  form_not_understood: (d) => `The site was left: it ${String(d.reason)}.`,
  service_off: () => "This service is not switched on among the safeguards.",
  session_unknown: () => "This window is not unlocked.",
  proof_needed: () => "The vault passphrase is asked again before this.",
  wrong_passphrase: () => "That is not the vault's passphrase. Nothing was changed.",
  reveal_switched_off: () =>
    "Showing secrets is switched off among the safeguards. Copying still works.",
  record_missing: () => "It is no longer there.",
  vault_missing: () => "There is no vault file at this place.",
  draw_unknown: () => "There is no earlier draw: the newest 20 are kept.",
  import_stopped: () => "It was stopped before its end: nothing came in.",
  import_unknown: () => "The file was let go from memory: choose it again.",
  nothing_held: () => "There is no secret here.",
  backup_of_other_key: () =>
    "This backup is not opened whole by this vault's key: it is of another vault, or damaged.",
  backup_unknown: () => "There is no backup of that name.",
  earlier_held: () =>
    "A rotation under way may still need this earlier secret: bring that to its end first.",
  rotation_open: () => "A rotation of this login is under way: bring that to its end first.",
  cxf_refused: (d) => `The file ${String(d.reason)}.`,
  bundle_refused: (d) => `The file ${String(d.reason)}. Nothing was changed.`,
  bundle_content_refused: (d) => `The bundle ${String(d.reason)}. Nothing was changed.`,
  bundle_closed: () =>
    "This passphrase does not open the bundle, or the file was changed since it was sealed.",
  share_wrong: (d) => `A sheet ${String(d.reason)}.`,
  sheets_void: () =>
    "These sheets do not open this vault: they were made void, or are of another. Nothing was changed.",
  picture_refused: (d) => `The picture ${String(d.reason)}.`,
  picture_without_key: () =>
    "No QR code of the picture holds a key of codes (an otpauth address). Take the picture that the site shows for its set-up.",
  mails_refused: (d) =>
    `What came from the mail tray ${String(d.reason)}. The mails before it stay.`,
  changed_meanwhile: () =>
    "This was changed in another window since it was opened here. Nothing was saved over it.",
  disk_failed: (d) =>
    `The vault's disk failed: ${String(d.reason)}. What was answered for before is kept.`,
  no_copy: () => "This file is neither a backup of a vault nor a sealed bundle.",
  in_bin: () => "This login lies in the bin: restore it first.",
  check_running: () => "A check is under way already.",
  audit_stopped: () => "The check was stopped; the last result stays.",
  event_refused: (d) =>
    `This rotation is ${String(d.state).replaceAll("_", " ")}: that step does not follow. Another window may have taken it further.`,
  vault_exists: () => "A file is there already; it was left as it is.",
  vault_newer: () => "This vault was written by a later version of New Knot.",
  vault_read_only: () => "This is an older copy of the vault: answer that first, above.",
  vault_busy: () => "Something long is under way in the vault: stop it, or wait for its end.",
  vault_in_use: () => "Another process holds this vault.",
  vault_locked: () => "The vault is locked.",
  too_many_guesses: (d) =>
    `Wrong passphrases came too fast: try again in ${String(d.retry_after_s)} s.`,
  vault_damaged: (d) =>
    `The vault file is damaged: ${String(d.part)}. Nothing was written to it; open a backup of it.`,
  record_damaged: () => "This record is not what was written, so it is not shown.",
  slot_damaged: () => "Both copies of the key slot are damaged: open a backup.",
  seal_broken: () => "A seal does not open.",
  corpus_invalid: (d) => `The corpus cannot be used: ${String(d.reason)}.`,
  backup_failed: (d) => `No backup was made (${String(d.kind)}). It is tried again.`,
  backup_not_verified: (d) =>
    `The backup would not give everything back: ${d.title ? `of ${String(d.title)}, ` : ""}${String(d.part)}. It was put apart, and no other was deleted for it.`,
  vault_folder_refused: (d) => `The folder cannot be written to: ${String(d.reason)}.`,
  disk_full: () => "The disk is full: nothing was changed.",
  host_refused: () => "This address is not the one New Knot answers at.",
  origin_refused: () => "The call did not come from New Knot's own page.",
  length_required: () => "The request does not say how long it is.",
  body_too_large: () => "That is larger than is taken: 1 MB, for a file 20 MB.",
  not_found: () => "There is nothing at this address.",
  method_refused: () => "That cannot be done at this address.",
  refused: () => "The request was refused.",
  unexpected: () => "Something went wrong inside New Knot. Nothing was half-done.",
  clipboard_refused: () =>
    "The browser did not let the clipboard be written: click into this window and copy again.",
  unreachable: () => "New Knot's server does not answer. Is it still running?",
  request_invalid: (d) => {
    const fields = d.fields as { field: string }[] | undefined;
    return `Not understood: ${fields?.map((f) => fieldName(f.field)).join(", ") ?? "the request"}.`;
  },
};

export const knownCodes = Object.keys(SENTENCES);

export function sentence(problem: unknown): string {
  const { code, data } = problem as { code?: string; data?: Data };
  const say = SENTENCES[code ?? ""] ?? SENTENCES.unexpected;
  return say ? say(data ?? {}) : "";
}

/** Whether a passphrase was refused only because it may be guessed how it was made. */
export function isOnlyABound(problem: unknown): boolean {
  const { code, data } = (problem ?? {}) as { code?: string; data?: Data };
  return code === "passphrase_too_weak" && Boolean(data?.is_bound);
}

/** The code of what went wrong, if it is one of ours. */
export function codeOf(problem: unknown): string {
  return String(((problem ?? {}) as { code?: string }).code ?? "");
}
