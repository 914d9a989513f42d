import react from "@vitejs/plugin-react";
import { defineConfig } from "vitest/config";

export default defineConfig({
  plugins: [react()],
  html: { cspNonce: "__CSP_NONCE__" },
  build: { assetsInlineLimit: 0, target: "es2022", chunkSizeWarningLimit: 900 },
  test: { environment: "happy-dom", include: ["src/**/*.test.{ts,tsx}"] },
});
