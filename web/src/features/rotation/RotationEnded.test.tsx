import { screen } from "@testing-library/react";
import { expect, test } from "vitest";
import { mount, server } from "../../../test/mounted";
import type { Schema } from "../../api/client";
import { CampaignPlace } from "./CampaignPlace";
import { RotationEnded } from "./RotationEnded";

const ROTATION = {
  rotation_id: "r1",
  login_id: "a",
  state: "verified",
  is_sign_up: false,
} as Schema["RotationOut"];
const place = (login_id: string, title: string, standing: string, rotation_id: string | null) => ({
  login_id,
  title,
  standing,
  rotation_id,
});

test("in a campaign it leads to the next login that is under way", async () => {
  const places = [
    place("a", "Gantry", "done", "r1"),
    place("b", "Slate", "done", "r2"),
    place("c", "Tithe", "under_way", "r3"),
  ];
  server({ "GET /campaigns": [{ campaign_id: "k", places }] });
  mount(<RotationEnded rotation={ROTATION} />);
  const next = await screen.findByRole("link", { name: "Next of the campaign: Tithe" });
  expect(next.getAttribute("href")).toBe("/rotate/r3");
  expect(screen.getByText(/old one lies in the login's history/)).toBeTruthy();
});

test("on its way it is said where it stands in its campaign, and what is next", async () => {
  const places = [..."abcdef"].map((id, i) => place(id, id.repeat(3), i < 2 ? "done" : "", null));
  server({ "GET /campaigns": [{ campaign_id: "k", places }] });
  mount(<CampaignPlace rotation={{ ...ROTATION, login_id: "c" }} />);
  const said = await screen.findByRole("region", { name: "Its campaign" });
  expect(said.textContent).toContain("3 of 6, 2 others done. Next: ddd, eee, fff. the campaign");
});

test("else to the worklist; what was given up says that the secret stayed", async () => {
  server({ "GET /campaigns": [] });
  mount(<RotationEnded rotation={{ ...ROTATION, state: "given_up" }} />);
  expect(screen.getByText(/What was current stayed so/)).toBeTruthy();
  expect(screen.getByRole("link", { name: "Next on the worklist" }).getAttribute("href")).toBe("/");
});

test("what the login needs besides is said, with the way to it", async () => {
  server({
    "GET /campaigns": [],
    "GET /checks/worklist/a": [{ kind: "no_second_factor" }, { kind: "weak" }],
  });
  mount(<RotationEnded rotation={ROTATION} />);
  const link = await screen.findByRole("link", { name: "set up its second factor" });
  expect(link.getAttribute("href")).toBe("/logins/a");
  expect(screen.queryByRole("link", { name: "correct its address" })).toBeNull();
});
