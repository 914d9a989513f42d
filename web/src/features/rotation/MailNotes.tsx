import { useQuery } from "@tanstack/react-query";
import type { Schema } from "../../api/client";
import { queries } from "../../api/queries";
import { dayAndTime } from "../../domain/moments";
import { ProblemNote } from "../../shared/ProblemNote";
import { useNow } from "../../shared/useNow";

/** Mails that tell of this change, as they come in; one that nothing here explains is a warning. */
export function MailNotes({ rotation }: { rotation: Schema["RotationOut"] }) {
  const { data: safeguards } = useQuery(queries.safeguards());
  const watching = Boolean(safeguards?.mail_used) && rotation.handed_out_at !== null;
  const { data, error } = useQuery({
    ...queries.mails(),
    enabled: watching,
    refetchInterval: rotation.is_open ? 5_000 : false,
  });
  const now = useNow();
  if (!watching) return null;
  const own = (data ?? []).filter((mail) => mail.login_ids.includes(rotation.login_id));
  const fitting = own.filter((mail) => mail.rotation_id === rotation.rotation_id);
  const strange = own.filter((mail) => mail.rotation_id === null);
  return (
    <section aria-label="Mails of this change" role="status">
      <h2>Mails of this change</h2>
      <ProblemNote problem={error} />
      {fitting.length === 0 && (
        <p className="small quiet">None in the tray yet; it is looked into every few seconds.</p>
      )}
      {fitting.map((mail) => (
        <MailLine key={mail.mail_id} mail={mail} now={now}>
          fits this rotation
        </MailLine>
      ))}
      {strange.map((mail) => (
        <MailLine key={mail.mail_id} mail={mail} now={now}>
          <b>nothing here explains it: was it you?</b>
        </MailLine>
      ))}
    </section>
  );
}

function MailLine(props: { mail: Schema["MailOut"]; now: number; children: React.ReactNode }) {
  const { mail, now } = props;
  return (
    <p className="small">
      “{mail.subject}”, {dayAndTime(mail.sent_at, now)}: {props.children}.{" "}
      {mail.link && (
        <a href={mail.link} target="_blank" rel="noopener noreferrer">
          Open its link
        </a>
      )}
    </p>
  );
}
