import { fireEvent, screen, waitFor } from "@testing-library/react";
import { expect, test } from "vitest";
import { loginRow, mount, Refusal, server } from "../../../test/mounted";
import BinPage from "./BinPage";

const GONE = loginRow("Gantry", { deleted_at: "2026-11-20T10:00:00Z" });

test("a login is taken out of the bin, and the list is asked again", async () => {
  let bin = [GONE];
  const calls = server({
    "GET /logins/bin": () => bin,
    [`POST /logins/${GONE.login_id}/restore`]: () => {
      bin = [];
      return GONE;
    },
  });
  mount(<BinPage />);
  fireEvent.click(await screen.findByRole("button", { name: "Restore Gantry" }));
  await waitFor(() => expect(screen.getByText(/The bin is empty/)).toBeTruthy());
  expect(calls.filter((c) => c.route === "GET /logins/bin")).toHaveLength(2);
});

test("what cannot be restored is said, and stays", async () => {
  server({
    "GET /logins/bin": [GONE],
    [`POST /logins/${GONE.login_id}/restore`]: new Refusal(507, "disk_full"),
  });
  mount(<BinPage />);
  fireEvent.click(await screen.findByRole("button", { name: "Restore Gantry" }));
  expect((await screen.findByRole("alert")).textContent).toMatch(/disk/i);
  expect(screen.getByText("Gantry")).toBeTruthy();
});
