import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { useNavigate } from "react-router";
import { answer, client, type Schema } from "../../api/client";
import { queries } from "../../api/queries";
import { openable } from "../../domain/address";
import { makesCodes } from "../../domain/secondFactor";
import { useClipboard } from "../../shared/clipboard";
import { useStripWindow } from "../../shared/StripWindow";
import { useAct } from "../../shared/useAct";
import { useKeys } from "../../shared/useKeys";

export type HandOver = ReturnType<typeof useHandOver>;

/** One rotation with everything that can be done at its present step, by button and by key. */
export function useHandOver(rotationId: string) {
  const navigate = useNavigate();
  const { data: rotation, error } = useQuery(queries.rotation(rotationId));
  const login = useQuery({
    ...queries.login(rotation?.login_id ?? ""),
    enabled: Boolean(rotation),
  }).data;
  // Asked of the site only where that is switched on; else the person opens what is stored.
  const changePage = useQuery({
    ...queries.changePage(rotationId),
    enabled: Boolean(login?.driven && rotation?.is_open && !rotation.is_sign_up),
  }).data?.address;
  const { copy } = useClipboard();
  const beside = useStripWindow();
  const [shown, setShown] = useState<string | null>(null);
  const [spelling, setSpelling] = useState<string | null>(null);
  const [opened, setOpened] = useState(false);
  const [refusing, setRefusing] = useState(false);
  const { problem, run } = useAct();
  const params = { path: { rotation_id: rotationId } };

  useEffect(() => {
    setShown(null);
    setSpelling(null);
  }, [rotationId, rotation?.staged_at]);

  const can = (name: Schema["RotationEvent"]) => rotation?.allowed.includes(name) ?? false;
  const event = (name: Schema["EventIn"]["event"]) =>
    run(() =>
      answer(
        client.POST("/rotations/{rotation_id}/events", {
          params,
          body: { event: name, refusal: "" },
        }),
      ),
    );
  const handOut = async (purpose: "copy" | "reveal") =>
    (await answer(client.POST("/rotations/{rotation_id}/hand-out", { params, body: { purpose } })))
      .secret;
  const copyCurrent = () =>
    run(async () => {
      const { secret } = await answer(
        client.POST("/rotations/{rotation_id}/current", { params, body: { purpose: "copy" } }),
      );
      await copy(`Current secret of ${rotation?.title}`, secret);
    });
  const copyNew = () =>
    run(async () => copy(`New secret of ${rotation?.title}`, await handOut("copy")));
  const copyFormer = () =>
    run(async () => {
      const { secret } = await answer(
        client.POST("/rotations/{rotation_id}/former", { params, body: { purpose: "copy" } }),
      );
      await copy(`Former secret of ${rotation?.title}`, secret);
    });
  const copyUserName = () =>
    run(async () => {
      if (rotation)
        await copy(`User name of ${rotation.title}`, rotation.user_name, { secret: false });
    });
  const copyCode = () =>
    run(async () => {
      const { code } = await answer(
        client.POST("/logins/{login_id}/code", {
          params: { path: { login_id: rotation?.login_id ?? "" } },
          body: { purpose: "copy" },
        }),
      );
      await copy(`Code of ${rotation?.title}`, code);
    });
  const toggle = () =>
    shown === null ? run(async () => setShown(await handOut("reveal"))) : setShown(null);
  const spellOut = () => run(async () => setSpelling(await handOut("reveal")));
  const openSite = () => {
    const address = changePage ?? rotation?.address;
    if (address) window.open(openable(address), "_blank", "noopener,noreferrer");
    setOpened(true);
  };
  const drawAgain = () =>
    run(() => answer(client.POST("/rotations/{rotation_id}/stage", { params, body: {} })));

  useKeys(
    {
      Escape: () => void navigate("/rotate"),
      u: () => rotation?.user_name && void copyUserName(),
      // Of an ended one the numbers are those of the views again.
      ...(rotation?.is_open && {
        "1": () => rotation.has_current && void copyCurrent(),
        "2": openSite,
        "3": () => can("hand_out") && void copyNew(),
      }),
      h: () => can("hand_out") && void toggle(),
      y: () => can("accept") && void event("accept"),
      n: () => can("refuse") && setRefusing(true),
      s: () => can("doubt") && void event("doubt"),
      d: () => can("stage") && void drawAgain(),
      v: () => can("verify") && void event("verify"),
      b: () => rotation?.has_former && void copyFormer(),
      o: openSite,
      p: () => can("hand_out") && void spellOut(),
      c: () => login && makesCodes(login) && void copyCode(),
      w: () => (beside.strip ? beside.close() : void beside.open()),
    },
    Boolean(rotation),
  );

  return {
    rotation,
    login,
    error,
    changePage,
    problem,
    beside,
    shown,
    spelling,
    refusing,
    opened: opened || Boolean(rotation?.handed_out_at),
    can,
    event,
    copyCurrent,
    copyNew,
    copyFormer,
    copyUserName,
    copyCode,
    toggle,
    spellOut,
    openSite,
    drawAgain,
    noteOpened: () => setOpened(true),
    stopSpelling: () => setSpelling(null),
    setRefusing,
  };
}
