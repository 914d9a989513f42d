import { fireEvent, screen, waitFor } from "@testing-library/react";
import { expect, test, vi } from "vitest";
import { mount, Refusal, server } from "../../../test/mounted";
import { CampaignDialog } from "./CampaignDialog";

const SITES = {
  total: 70,
  choices: [{ choice_id: "gantry.example", label: "gantry.example", count: 12 }],
};
const CHOSEN = { login_ids: ["a", "b"], titles: ["Gantry", "Gantry Post"] };

async function bySite() {
  fireEvent.click(await screen.findByText("By site"));
  fireEvent.mouseDown(await screen.findByRole("combobox", { name: "By site" }));
  fireEvent.click(await screen.findByText("gantry.example (12)"));
}

test("a campaign is planned over what a choice holds, and its logins are asked for once", async () => {
  const close = vi.fn();
  const calls = server({
    "POST /campaigns/choices": SITES,
    "POST /campaigns/chosen": CHOSEN,
    "POST /campaigns": {},
  });
  mount(<CampaignDialog onClose={close} />);
  await bySite();
  await screen.findByText("2 logins");
  expect(screen.getByText(/The largest 1 of 70/)).toBeTruthy();
  fireEvent.click(screen.getByRole("button", { name: "Plan it" }));
  await waitFor(() => expect(close).toHaveBeenCalled());
  expect(calls.find((c) => c.route === "POST /campaigns")?.body).toEqual({
    login_ids: CHOSEN.login_ids,
  });
});

test("a choice that cannot be read chooses nothing and is said to be so", async () => {
  server({
    "POST /campaigns/choices": SITES,
    "POST /campaigns/chosen": new Refusal(500, "unexpected"),
  });
  mount(<CampaignDialog onClose={() => {}} />);
  await bySite();
  await screen.findByRole("alert");
  expect(screen.getByRole("button", { name: "Plan it" })).toHaveProperty("disabled", true);
});

test("by hand, a login without a secret cannot be chosen", async () => {
  const login = { title: "Gantry", user_name: "ilse", domain: "", rotation_id: null };
  server({
    "POST /campaigns/choices": { total: 0, choices: [] },
    "POST /logins/find": [
      { ...login, login_id: "a", has_secret: true },
      { ...login, login_id: "b", has_secret: false },
    ],
  });
  mount(<CampaignDialog onClose={() => {}} />);
  fireEvent.click(await screen.findByText("By hand"));
  const sought = screen.getByRole("textbox");
  sought.focus();
  fireEvent.keyDown(sought, { key: "Enter" });
  expect(document.activeElement).toBe(sought);
  const boxes = await screen.findAllByRole("checkbox");
  expect(boxes.map((box) => (box as HTMLInputElement).disabled)).toEqual([false, true]);
  fireEvent.click(boxes[0]!);
  await screen.findByText("1 login");
});
