import { cleanup, configure } from "@testing-library/react";
import { afterEach, vi } from "vitest";

// The machine may be busy: a slow answer is not a wrong one.
configure({ asyncUtilTimeout: 20_000 });

// Nothing is laid out here: a list shows what fits into a screen.
for (const [name, value] of Object.entries({ clientHeight: 640, clientWidth: 1024 }))
  Object.defineProperty(HTMLElement.prototype, name, { configurable: true, get: () => value });

afterEach(() => {
  cleanup();
  document.body.innerHTML = "";
  sessionStorage.clear();
  vi.useRealTimers();
  vi.unstubAllGlobals();
  vi.restoreAllMocks();
});
