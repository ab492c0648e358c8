import tailwindcss from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import { defineConfig } from "vite";

export default defineConfig({
  plugins: [react(), tailwindcss()],
  build: { outDir: "../ridgewind/web/static", emptyOutDir: true, assetsInlineLimit: 0 },
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
