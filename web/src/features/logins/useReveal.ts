import { useEffect, useState } from "react";
import { answer, client } from "../../api/client";

/** What is wanted: the current secret, a further field, or an earlier secret. */
export type Wanted =
  { kind: "current" } | { kind: "field"; name: string } | { kind: "earlier"; earlier_id: string };

export function placeOf(wanted: Wanted): string {
  if (wanted.kind === "field") return `field ${wanted.name}`;
  return wanted.kind === "earlier" ? `earlier ${wanted.earlier_id}` : "current";
}

export async function fetchSecret(
  login_id: string,
  wanted: Wanted,
  purpose: "reveal" | "copy",
): Promise<string> {
  const path = { login_id };
  const body = { purpose };
  switch (wanted.kind) {
    case "current":
      return (await answer(client.POST("/logins/{login_id}/secret", { params: { path }, body })))
        .secret;
    case "field":
      return (
        await answer(
          client.POST("/logins/{login_id}/secret-field", {
            params: { path },
            body: { name: wanted.name, purpose },
          }),
        )
      ).secret;
    case "earlier":
      return (
        await answer(
          client.POST("/logins/{login_id}/history/{earlier_id}/secret", {
            params: { path: { login_id, earlier_id: wanted.earlier_id } },
            body,
          }),
        )
      ).secret;
  }
}

/** Secrets shown in this sheet: in this component's memory alone, gone when it goes. */
export function useReveal(login_id: string) {
  const [shown, setShown] = useState<Record<string, string>>({});
  useEffect(() => setShown({}), [login_id]);
  return {
    shown,
    holdBackAll: () => setShown({}),
    toggle: async (wanted: Wanted) => {
      const key = placeOf(wanted);
      if (key in shown) {
        setShown((now) => Object.fromEntries(Object.entries(now).filter(([k]) => k !== key)));
        return;
      }
      const secret = await fetchSecret(login_id, wanted, "reveal");
      setShown((now) => ({ ...now, [key]: secret }));
    },
  };
}
