import { cleanup, configure } from "@testing-library/react";
import { afterEach, vi } from "vitest";
import { viewsLeft } from "../src/shared/typedAhead";

// The machine may be busy: a slow answer is not a wrong one.
configure({ asyncUtilTimeout: 20_000 });

// Nothing is laid out here: a list shows what fits into a screen.
for (const [name, value] of Object.entries({ clientHeight: 640, clientWidth: 1024 }))
  Object.defineProperty(HTMLElement.prototype, name, { configurable: true, get: () => value });

afterEach(() => {
  cleanup();
  // Files share their modules: a view that stood in one is none in the next.
  viewsLeft();
  document.body.innerHTML = "";
  sessionStorage.clear();
  vi.useRealTimers();
  vi.unstubAllGlobals();
  vi.restoreAllMocks();
});
