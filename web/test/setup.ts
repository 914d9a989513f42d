import { cleanup } from "@testing-library/react";
import { afterEach, vi } from "vitest";

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
