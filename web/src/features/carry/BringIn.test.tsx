import { fireEvent, screen, waitFor, within } from "@testing-library/react";
import { expect, test } from "vitest";
import type { Schema } from "../../api/client";
import { mount, Refusal, server } from "../../../test/mounted";
import { BringIn } from "./BringIn";

const TABLE = {
  import_id: "a1",
  kind: "csv",
  encoding: "utf-8",
  separator: ",",
  columns: ["title", "password"],
  mapping: ["title", "secret"],
  targets: ["title", "secret", "notes", ""],
  row_count: 3,
};
const row = (line: number, more: Partial<Schema["ImportRowOut"]>) => ({
  line,
  status: "new",
  reason: "",
  title: `Lamp ${line}`,
  user_name: "ilse",
  address: "",
  has_secret: true,
  left: [],
  can_take: false,
  can_take_fields: false,
  differs: [],
  ...more,
});
const ROWS = [
  row(2, {}),
  row(3, {
    status: "differing",
    reason: "less than the file has",
    can_take_fields: true,
    differs: [
      { field: "notes", here: "by the day", there: "by the week" },
      { field: "code_key", here: "", there: "" },
    ],
  }),
  row(4, { status: "bad", reason: "folder is longer than 1,000 characters" }),
];
const NO_LOSSES =
  "resets in_bin policies open_rotations loose_ends driven_at own_details formula_secrets".split(
    " ",
  );
const LEFT = [{ line: 4, title: "Lamp 4", user_name: "ilse", reason: "folder is longer" }];

async function chosenFile(): Promise<void> {
  mount(<BringIn />);
  const file = new File(["title,password\n"], "old.csv");
  fireEvent.change(screen.getByLabelText("File to bring in"), { target: { files: [file] } });
  await screen.findByText("less than the file has");
}

test("rows are chosen singly, by field, and what was left out is named before the file goes", async () => {
  const calls = server({
    "POST /imports": TABLE,
    "POST /imports/a1/preview": { rows: ROWS },
    "POST /imports/a1/apply": { added_count: 0, taken_count: 1, left_out: LEFT },
    "POST /imports/left-out/file": {
      path: "/data/left-out.csv",
      written_at: "2026-11-25T10:00:00Z",
    },
  });
  await chosenFile();
  fireEvent.click(screen.getByLabelText("Bring Lamp 2 of line 2 in"));
  const choice = screen.getByRole("combobox", { name: "What becomes of Lamp 3 of line 3" });
  fireEvent.mouseDown(choice);
  fireEvent.click(await screen.findByTitle("take from it"));
  fireEvent.click(await screen.findByLabelText("take its notes"));
  fireEvent.click(screen.getByRole("button", { name: "Take from 1 row" }));
  const left = await screen.findByRole("region", { name: "Left out" });
  const sent = calls.find((one) => one.route === "POST /imports/a1/apply")?.body;
  expect(sent).toMatchObject({
    take_fields: [{ line: 3, fields: ["code_key"] }],
    not_lines: [2],
    also_lines: [],
  });
  expect(within(left).getByRole("alert").textContent).toContain("1 row left out");
  fireEvent.click(within(left).getByRole("button", { name: "Write them into a file…" }));
  fireEvent.click(await screen.findByRole("button", { name: "Write them" }));
  await waitFor(() => expect(left.textContent).toContain("/data/left-out.csv"));
});

test("rows are filtered by what becomes of them, and a refusal changes nothing", async () => {
  server({
    "POST /imports": TABLE,
    "POST /imports/a1/preview": { rows: ROWS },
    "POST /imports/a1/apply": new Refusal(507, "disk_full"),
  });
  await chosenFile();
  fireEvent.click(screen.getByRole("button", { name: "1 cannot come in" }));
  expect(screen.queryByText("Lamp 2")).toBeNull();
  fireEvent.click(screen.getByRole("button", { name: "Show all" }));
  expect(screen.getByText("Lamp 2")).toBeTruthy();
  fireEvent.click(screen.getByRole("button", { name: "Bring 1 login in" }));
  expect((await screen.findByRole("alert")).textContent).toContain("disk");
  expect(screen.getByText("Lamp 2")).toBeTruthy();
});

test("while nothing is brought in, the other parts stand beside it as they are", async () => {
  server({
    "GET /exports/losses": {
      ...Object.fromEntries(NO_LOSSES.map((name) => [name, 0])),
      histories: 7,
      waivers: 2,
      damaged: [],
    },
    "GET /backups": [
      { name: "a", made_at: "2026-11-25T10:00:00Z", size_bytes: 304_000, is_read_through: true },
      { name: "b", made_at: "2026-10-25T10:00:00Z", size_bytes: 303_000, is_read_through: false },
    ],
    "GET /recovery": {
      threshold: 2,
      count: 3,
      made_at: "2026-05-04T10:00:00Z",
      practised_at: null,
    },
  });
  mount(<BringIn />);
  await screen.findByText("all logins; not 7 histories, 2 accepted findings");
  await screen.findByText("297 KiB");
  expect(screen.getAllByText("every record read")).toHaveLength(1);
  await screen.findByText(/2 of 3 sheets open this vault, made .*; never practised/);
});
