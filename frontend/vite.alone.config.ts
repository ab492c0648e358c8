import { defineConfig } from "vite";

/** The session in one file: one script and one style, which the server puts into the page. */
export default defineConfig({
  publicDir: false,
  build: {
    outDir: "../ridgewind/web/static/alone",
    emptyOutDir: true,
    lib: {
      entry: ["src/places/practice/alone/main.ts"],
      formats: ["iife"],
      name: "alone",
      fileName: () => "alone.js",
    },
  },
});
