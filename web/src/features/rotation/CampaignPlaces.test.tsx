import { fireEvent, screen } from "@testing-library/react";
import { expect, test } from "vitest";
import { mount } from "../../../test/mounted";
import { CampaignPlaces } from "./CampaignPlaces";

const PLACE = { user_name: "", driven: false, rotation_id: null, problem: "", problem_data: {} };
const places = (total: number, done: number) =>
  Array.from({ length: total }, (_, at) => {
    const standing: "done" | "waiting" = at < done ? "done" : "waiting";
    return { ...PLACE, login_id: `l${at}`, title: `Login ${at + 1}`, standing };
  });
const shown = () => screen.getAllByRole<HTMLLIElement>("listitem").map((one) => one.value);

test("of many logins those that are done come last, and no more are shown than are looked at", () => {
  mount(<CampaignPlaces places={places(100, 3)} />);
  expect([shown().length, shown()[0]]).toEqual([60, 4]);
  fireEvent.click(screen.getByRole("button", { name: "40 more" }));
  expect([shown().length, shown().at(-1)]).toEqual([100, 3]);
});
