import tailwindcss from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import { defineConfig } from "vite";

export default defineConfig({
  plugins: [react(), tailwindcss()],
  build: {
    outDir: "../ridgewind/web/static",
    emptyOutDir: true,
    assetsInlineLimit: 0,
    rolldownOptions: {
      checks: { circularDependency: true },
      // What a third of the pages share is one piece: a page asks for a third fewer, and the first
      // load stays under its bar. More in one piece would not.
      output: {
        codeSplitting: {
          groups: [{ name: "shared", minShareCount: 20 }],
        },
      },
      onLog(level, log, proceed) {
        const ours = log.ids?.every((id) => !id.includes("node_modules"));
        // A rule of the linter says the same in half a minute.
        if (log.code === "CIRCULAR_DEPENDENCY" && ours) throw new Error(log.message);
        if (log.code !== "CIRCULAR_DEPENDENCY") proceed(level, log);
      },
    },
  },
  server: {
    host: "127.0.0.1",
    // The server checks Host and Origin, so both are rewritten to its own.
    proxy: {
      "/api": {
        target: "http://127.0.0.1:8421",
        changeOrigin: true,
        headers: { origin: "http://127.0.0.1:8421" },
      },
    },
  },
});
