import { fireEvent, screen, waitFor } from "@testing-library/react";
import { expect, test } from "vitest";
import { mount, Refusal, server } from "../../../test/mounted";
import AddressPage from "./AddressPage";

async function asked(address: string): Promise<void> {
  fireEvent.change(await screen.findByRole("textbox"), { target: { value: address } });
}

test("an address is asked about in a body, never in an address", async () => {
  const calls = server({
    "POST /addresses": {
      domain: "gantry.example",
      host: "gantry.example",
      is_kept_out: false,
      logins: [],
      resembles: [],
    },
  });
  mount(<AddressPage />);
  await asked("https://gantry.example/enter");
  await waitFor(() => expect(calls).toHaveLength(1));
  expect(calls[0]).toEqual({
    route: "POST /addresses",
    body: { address: "https://gantry.example/enter" },
  });
});

test("what is no address is said to be none", async () => {
  const data = { field: "address", reason: "is not a web address" };
  server({ "POST /addresses": new Refusal(422, "field_invalid", data) });
  mount(<AddressPage />);
  await asked("http://[");
  expect((await screen.findByRole("alert")).textContent).toContain("is not a web address");
});
