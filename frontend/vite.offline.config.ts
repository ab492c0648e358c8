import { createHash } from "node:crypto";
import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { defineConfig } from "vite";

const BUILT = join(import.meta.dirname, "../ridgewind/web/static");

/** Every built file; those whose names tell their content need no revision. */
const files = [
  ...readdirSync(join(BUILT, "assets")).map((name) => ({ url: `/assets/${name}`, revision: null })),
  ...["index.html", "mark.svg"].map((name) => ({
    url: `/${name}`,
    revision: createHash("sha256").update(readFileSync(join(BUILT, name))).digest("hex"),
  })),
];

/** What opens the interface on a phone while the computer is away; built after the interface. */
export default defineConfig({
  publicDir: false,
  define: { FILES: JSON.stringify(files), "process.env.NODE_ENV": '"production"' },
  build: {
    outDir: BUILT,
    emptyOutDir: false,
    lib: {
      entry: ["src/offline/worker.ts"],
      formats: ["iife"],
      name: "offline",
      fileName: () => "offline.js",
    },
  },
});
