import react from "@vitejs/plugin-react";
import { existsSync, readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import type { Plugin } from "vite";
import { defineConfig } from "vitest/config";

/** The licence of every package of which something is in the bundle, as their laws want it. */
function licencesOfWhatIsShipped(): Plugin {
  const packages = new Map<string, string>();
  return {
    name: "licences-of-what-is-shipped",
    moduleParsed({ id }) {
      const file = id.replace(/^\0/, "").replace(/\?.*$/, "");
      const at = file.lastIndexOf("/node_modules/");
      if (at < 0) return;
      const [scope = "", name = ""] = file.slice(at + "/node_modules/".length).split("/");
      const known = scope.startsWith("@") ? `${scope}/${name}` : scope;
      packages.set(known, join(file.slice(0, at), "node_modules", known));
    },
    generateBundle() {
      for (const [name, folder] of packages) {
        const found = existsSync(folder) ? readdirSync(folder) : [];
        const notice = found.find((file) => /^(licen[cs]e|copying|notice)/i.test(file));
        const about = JSON.parse(readFileSync(join(folder, "package.json"), "utf8")) as {
          license?: string;
        };
        const source = notice
          ? readFileSync(join(folder, notice), "utf8")
          : `${name}: ${about.license ?? "no licence is stated"}\n`;
        const fileName = `licences/${name.replace("/", "__")}.txt`;
        this.emitFile({ type: "asset", fileName, source });
      }
    },
  };
}

export default defineConfig({
  plugins: [react(), licencesOfWhatIsShipped()],
  html: { cspNonce: "__CSP_NONCE__" },
  build: { assetsInlineLimit: 0, target: "es2022", chunkSizeWarningLimit: 900 },
  test: {
    environment: "happy-dom",
    // The component library is read once, not once a file.
    isolate: false,
    testTimeout: 60_000,
    setupFiles: ["test/setup.ts"],
    include: ["src/**/*.test.{ts,tsx}"],
    coverage: {
      provider: "v8",
      include: ["src/**"],
      exclude: ["src/**/*.test.*", "src/api/schema.d.ts"],
    },
  },
});
