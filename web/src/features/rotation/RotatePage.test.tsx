import { screen } from "@testing-library/react";
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

test("rotations that cannot be read are said to be so", async () => {
  server({ ...EMPTY, "GET /rotations": new Refusal(500, "unexpected") });
  mount(<RotatePage />);
  await screen.findByRole("alert");
});
