import { fireEvent, screen, waitFor } from "@testing-library/react";
import { expect, test } from "vitest";
import { mount, Refusal, server } from "../../../test/mounted";
import RotatePage from "./RotatePage";

const ROTATION = {
  rotation_id: "b".repeat(32),
  login_id: "a".repeat(32),
  title: "Gantry",
  user_name: "ilse",
  address: "https://gantry.example",
  state: "at_site",
  allowed: [],
  began_at: "2026-11-20T10:00:00Z",
  changed_at: "2026-11-20T10:00:00Z",
  current_copied_at: null,
  current_since_at: "2026-01-01T00:00:00Z",
  handed_out_at: "2026-11-20T10:00:00Z",
  has_current: true,
  has_former: false,
  is_open: true,
  is_sign_up: false,
  is_stalled: true,
  refusal: "",
  staged_at: "2026-11-20T10:00:00Z",
  staged_bits: 126,
  staged_length: 20,
  steps: [],
};
const EMPTY = { "GET /logins": { logins: [], damaged: [] }, "GET /campaigns": [] };

test("what is under way is shown with where it stands, and leads on", async () => {
  server({ ...EMPTY, "GET /rotations": [ROTATION] });
  mount(<RotatePage />);
  const link = (await screen.findAllByRole("link", { name: /Gantry/ }))[0];
  expect(link?.getAttribute("href")).toBe(`/rotate/${ROTATION.rotation_id}`);
});

test("what the worklist wants a new secret for is rotated from here, but for what is under way", async () => {
  const lead = { kind: "weak", evidence: "Word and year", why: "" };
  const more = { kind: "login", user_name: "ilse", findings: [lead], needs: ["new_secret"] };
  const calls = server({
    ...EMPTY,
    "GET /rotations": [ROTATION],
    "POST /checks/worklist/rows": {
      by_need: { new_secret: 7 },
      rows: [
        { ...more, row_id: "1", login_id: ROTATION.login_id, title: "Gantry", rotation_id: "r" },
        { ...more, row_id: "2", login_id: "c", title: "Lumen", rotation_id: null },
      ],
    },
    "POST /rotations": { ...ROTATION, rotation_id: "new" },
  });
  mount(<RotatePage />);
  await screen.findByText("7 logins");
  expect(screen.queryByRole("button", { name: /Rotate Gantry/ })).toBeNull();
  fireEvent.click(screen.getByRole("button", { name: "Rotate Lumen, ilse" }));
  await waitFor(() => expect(screen.getByTestId("where").textContent).toBe("/rotate/new"));
  expect(calls.find((c) => c.route === "POST /rotations")?.body).toEqual({ login_id: "c" });
});

test("rotations that cannot be read are said to be so", async () => {
  server({ ...EMPTY, "GET /rotations": new Refusal(500, "unexpected") });
  mount(<RotatePage />);
  await screen.findByRole("alert");
});
