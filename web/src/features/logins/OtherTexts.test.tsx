import { fireEvent, screen, waitFor } from "@testing-library/react";
import { expect, test } from "vitest";
import type { Schema } from "../../api/client";
import { loginRow, mount, Refusal, server } from "../../../test/mounted";
import { OtherTexts } from "./OtherTexts";

const APART = { text_id: "a", field: "notes", text: "by the hour", is_apart: true };
const KEPT = { text_id: "b", field: "Yard", text: "East", is_apart: false };
const login = {
  ...loginRow("Gantry"),
  other_texts: [APART, KEPT],
} as unknown as Schema["LoginSheet"];
const PATH = `/logins/${login.login_id}/texts`;

test("a text of another copy is taken, left or deleted", async () => {
  const calls = server({
    [`POST ${PATH}/a/settle`]: login,
    [`DELETE ${PATH}/b`]: login,
  });
  mount(<OtherTexts login={login} />);
  fireEvent.click(screen.getByRole("button", { name: "Take this text as notes" }));
  await waitFor(() =>
    expect(calls[0]).toEqual({ route: `POST ${PATH}/a/settle`, body: { take: true } }),
  );
  fireEvent.click(screen.getByRole("button", { name: "Leave notes as it is now" }));
  await waitFor(() => expect(calls[1]?.body).toEqual({ take: false }));
  expect(screen.queryByRole("button", { name: /Delete this text of notes/ })).toBeNull();
  fireEvent.click(screen.getByRole("button", { name: "Delete this text of Yard for good" }));
  await waitFor(() => expect(calls[2]?.route).toBe(`DELETE ${PATH}/b`));
});

test("a refusal is said, and where no text stands apart nothing is shown", async () => {
  server({ [`POST ${PATH}/a/settle`]: new Refusal(404, "nothing_held") });
  mount(<OtherTexts login={login} />);
  fireEvent.click(screen.getByRole("button", { name: "Take this text as notes" }));
  expect(await screen.findByRole("alert")).toBeTruthy();
});
