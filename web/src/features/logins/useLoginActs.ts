import { useNavigate } from "react-router";
import { answer, client, type Schema } from "../../api/client";
import { openable } from "../../domain/address";
import { useClipboard } from "../../shared/clipboard";
import { useAct } from "../../shared/useAct";
import { useRotate } from "../../shared/useRotate";

type Login = Pick<
  Schema["LoginRow"],
  "login_id" | "title" | "user_name" | "address" | "has_secret" | "rotation_id"
>;

/** What can be done with a login by one key, in the list and in its sheet alike. */
export function useLoginActs() {
  const navigate = useNavigate();
  const { copy } = useClipboard();
  const { problem, setProblem, run: guarded } = useAct();

  const rotate = useRotate(setProblem);

  return {
    problem,
    setProblem,
    guarded,
    copyUserName: (login: Pick<Login, "title" | "user_name">) =>
      guarded(() => copy(`User name of ${login.title}`, login.user_name, { secret: false })),
    copySecret: (login: Pick<Login, "login_id" | "title">) =>
      guarded(async () => {
        const { secret } = await answer(
          client.POST("/logins/{login_id}/secret", {
            params: { path: { login_id: login.login_id } },
            body: { purpose: "copy" },
          }),
        );
        await copy(`Secret of ${login.title}`, secret);
      }),
    copyCode: (login: Login) =>
      guarded(async () => {
        const { code } = await answer(
          client.POST("/logins/{login_id}/code", {
            params: { path: { login_id: login.login_id } },
            body: { purpose: "copy" },
          }),
        );
        await copy(`Code of ${login.title}`, code);
      }),
    openSite: (login: Login) => {
      if (login.address) window.open(openable(login.address), "_blank", "noopener,noreferrer");
    },
    rotate: (login: Login) =>
      login.rotation_id
        ? void navigate(`/rotate/${login.rotation_id}`)
        : rotate.mutate(login.login_id),
    remove: (login: Login) =>
      guarded(async () => {
        await answer(
          client.DELETE("/logins/{login_id}", {
            params: { path: { login_id: login.login_id } },
          }),
        );
        void navigate("/logins");
      }),
  };
}
