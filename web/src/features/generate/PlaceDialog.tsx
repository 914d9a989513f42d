import { useQuery, useQueryClient } from "@tanstack/react-query";
import { Button, Modal } from "antd";
import { useMemo, useRef, useState } from "react";
import { useNavigate } from "react-router";
import { answer, client, type Schema } from "../../api/client";
import { queries } from "../../api/queries";
import { haystack, matches, nearest } from "../../domain/search";
import { ProblemNote } from "../../shared/ProblemNote";

const SHOWN = 6;

/** A new login or an existing one: both as near. */
export function PlaceDialog({ looseEndId, onClose }: { looseEndId: string; onClose: () => void }) {
  const navigate = useNavigate();
  const queryClient = useQueryClient();
  const { data } = useQuery(queries.logins());
  const field = useRef<HTMLInputElement>(null);
  const [typed, setTyped] = useState("");
  const [problem, setProblem] = useState<unknown>(null);
  const found = useMemo(
    () =>
      nearest(
        (data?.logins ?? []).filter((l) => matches(haystack(l), typed)),
        typed,
      ).slice(0, SHOWN),
    [data, typed],
  );

  const stage = async (login: Schema["LoginRow"]) => {
    if (!login.has_secret) {
      void navigate(`/logins/${login.login_id}/edit?loose_end=${looseEndId}`);
      return;
    }
    try {
      const body = { login_id: login.login_id, secret: { loose_end_id: looseEndId } };
      const rotation = await answer(client.POST("/rotations", { body }));
      await queryClient.invalidateQueries();
      void navigate(`/rotate/${rotation.rotation_id}`);
    } catch (error) {
      setProblem(error);
    }
  };

  return (
    <Modal
      open
      title="Where does it belong?"
      footer={null}
      onCancel={onClose}
      afterOpenChange={(open) => open && field.current?.focus()}
    >
      <div className="stack">
        <Button type="primary" onClick={() => void navigate(`/logins/new?loose_end=${looseEndId}`)}>
          A new login
        </Button>
        <label className="field">
          <span>or a login that is there: it becomes the new secret of its rotation</span>
          <input
            ref={field}
            className="secret-input"
            style={{ fontFamily: "var(--face)" }}
            autoComplete="off"
            spellCheck={false}
            onChange={(event) => setTyped(event.target.value)}
          />
        </label>
        <div>
          {found.map((login) => (
            <button
              key={login.login_id}
              type="button"
              className="facet"
              disabled={login.rotation_id !== null}
              onClick={() => void stage(login)}
            >
              <span>
                {login.title}{" "}
                <span className="small quiet">
                  {login.rotation_id ? "is being rotated already" : login.user_name}
                </span>
              </span>
            </button>
          ))}
        </div>
        <ProblemNote problem={problem} />
      </div>
    </Modal>
  );
}
