import { fireEvent, render, screen, waitFor } from "@testing-library/react";
import { Suspense, type ComponentType } from "react";
import { beforeEach, expect, test, vi } from "vitest";
import { lazyView } from "./lazyView";
import { ViewBoundary } from "./ViewBoundary";

beforeEach(() => {
  vi.spyOn(console, "error").mockImplementation(() => {});
});

test("a view that fails says so in its place, and is tried again", () => {
  let broken = true;
  function View() {
    if (broken) throw new Error("anything");
    return <h1>Logins</h1>;
  }
  render(
    <>
      <nav>frame</nav>
      <ViewBoundary>
        <View />
      </ViewBoundary>
    </>,
  );
  expect(screen.getByRole("alert").textContent).toContain("This view failed");
  expect(screen.getByText("frame")).toBeTruthy();
  broken = false;
  fireEvent.click(screen.getByRole("button", { name: "Try again" }));
  expect(screen.getByRole("heading", { name: "Logins" })).toBeTruthy();
});

test("a script that could not be loaded is loaded when the server is back", async () => {
  vi.useFakeTimers({ shouldAdvanceTime: true });
  const load = vi.fn<() => Promise<{ default: ComponentType }>>();
  load.mockRejectedValueOnce(new TypeError("Failed to fetch dynamically imported module: x.js"));
  load.mockResolvedValue({ default: () => <h1>Report</h1> });
  const away = vi.fn<typeof fetch>().mockRejectedValueOnce(new TypeError("refused"));
  away.mockImplementation(async () => new Response("{}", { status: 200 }));
  vi.stubGlobal("fetch", away);
  const View = lazyView(load);
  render(
    <ViewBoundary>
      <Suspense>
        <View />
      </Suspense>
    </ViewBoundary>,
  );
  await waitFor(() => expect(screen.getByText(/does not answer/)).toBeTruthy());
  await vi.advanceTimersByTimeAsync(2_100);
  expect(screen.queryByRole("heading", { name: "Report" })).toBeNull();
  await vi.advanceTimersByTimeAsync(2_100);
  await waitFor(() => expect(screen.getByRole("heading", { name: "Report" })).toBeTruthy());
});
