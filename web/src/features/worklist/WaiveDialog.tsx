import { Input, Radio } from "antd";
import { useState } from "react";
import { answer, client, type Schema } from "../../api/client";
import { FINDING_LABELS } from "../../domain/findings";
import { REASONS, type WaiverReason } from "../../domain/waivers";
import { DayField } from "../../shared/DayField";
import { ProblemNote } from "../../shared/ProblemNote";
import { DraftNote, useFormDraft } from "../../shared/useFormDraft";
import { Dialogue } from "../../shared/Dialogue";

/** A finding to be accepted: of one login, or of each of a group at once. */
export type ToWaive = {
  kind: Schema["FindingKind"];
  evidence: string;
  title: string;
  login_ids: string[];
};

type Props = { finding: ToWaive; onClose: () => void };

/** A finding accepted for a reason, with a note, and until a day if wished. */
export function WaiveDialog({ finding, onClose }: Props) {
  const [reason, setReason] = useState<WaiverReason>("cannot");
  const [note, setNote] = useState("");
  const [until, setUntil] = useState("");
  const [problem, setProblem] = useState<unknown>(null);

  const kept = useFormDraft<{ reason: WaiverReason; note: string; until: string }>(
    `waiver-${finding.kind.replaceAll("_", "-")}-${finding.login_ids[0] ?? ""}`,
    () => ({ reason, note, until }),
    (content) => {
      setReason(content.reason);
      setNote(content.note);
      setUntil(content.until);
    },
    JSON.stringify({ reason, note, until }),
  );

  const give = async () => {
    const findings = finding.login_ids.map((login_id) => ({ kind: finding.kind, login_id }));
    const body = { findings, reason, note, until_on: until || null };
    try {
      await answer(client.POST("/waivers", { body }));
      void kept.forget();
      onClose();
    } catch (error) {
      setProblem(error);
    }
  };

  return (
    <Dialogue
      open
      endsByEnter
      title={`Accept: ${finding.title}, ${FINDING_LABELS[finding.kind].toLowerCase()}?`}
      okText="Accept it"
      cancelText="Cancel"
      onOk={() => void give()}
      onCancel={() => kept.leave(onClose)}
    >
      <div className="stack gap-12">
        <DraftNote
          draft={kept}
          onAnew={() => {
            setReason("cannot");
            setNote("");
            setUntil("");
          }}
        />
        <p className="small">{finding.evidence}.</p>
        <Radio.Group
          aria-label="Why it is accepted"
          value={reason}
          onChange={(event) => setReason(event.target.value as WaiverReason)}
          className="waive-dialog-why-it-is"
        >
          {(Object.keys(REASONS) as WaiverReason[]).map((r) => (
            <Radio key={r} value={r}>
              {REASONS[r].label}: {REASONS[r].means}
            </Radio>
          ))}
        </Radio.Group>
        <label className="field">
          <span>Note of your own</span>
          <Input
            value={note}
            maxLength={1000}
            onChange={(event) => setNote(event.target.value)}
            autoComplete="off"
          />
        </label>
        <DayField
          label="Until (empty: for as long as its evidence stays the same)"
          value={until}
          onChange={setUntil}
        />
        <p className="small quiet">
          It shows again when the secret changes, when more logins share it, or when a later breach
          holds it. All that are accepted stand under “Accepted findings”.
        </p>
        <ProblemNote problem={problem} />
      </div>
    </Dialogue>
  );
}
