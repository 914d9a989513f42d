import { fireEvent, screen, waitFor } from "@testing-library/react";
import { expect, test } from "vitest";
import { mount, Refusal, server } from "../../../test/mounted";
import ReportPage from "./ReportPage";

const LINE = {
  group: "Maud",
  title: "Gantry",
  user_name: "",
  address: "https://gantry.example",
  kind: "Weak",
  evidence: "Word and year",
  to_do: "Change it to a drawn one.",
};

test("the report is asked for as it is wished, without user names unless that is wished", async () => {
  const calls = server({ "POST /reports": { lines: [LINE] } });
  mount(<ReportPage />);
  await screen.findByRole("heading", { name: /Maud/ });
  fireEvent.click(screen.getByLabelText("by kind of finding"));
  fireEvent.click(screen.getByLabelText("with user names"));
  await waitFor(() => expect(calls).toHaveLength(3));
  expect(calls.map((c) => c.body)).toEqual([
    { grouped_by: "owner", with_user_names: false },
    { grouped_by: "kind", with_user_names: false },
    { grouped_by: "kind", with_user_names: true },
  ]);
});

test("a table that is not given is said to be so", async () => {
  server({
    "POST /reports": { lines: [LINE] },
    "POST /reports/csv": new Refusal(423, "vault_locked"),
  });
  mount(<ReportPage />);
  await screen.findByRole("heading", { name: /Maud/ });
  fireEvent.click(screen.getByRole("button", { name: "Save as a table (CSV)" }));
  await screen.findByRole("alert");
});
