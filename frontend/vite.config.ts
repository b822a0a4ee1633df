import react from "@vitejs/plugin-react";
import { defineConfig } from "vite";

export default defineConfig({
  plugins: [react()],
  build: {
    outDir: "../src/just_plane/web/page",
    emptyOutDir: true,
    // Inlined assets would be data: addresses, which the page's security policy refuses for fonts.
    assetsInlineLimit: 0,
    chunkSizeWarningLimit: 900,
  },
  server: { proxy: { "/api": "http://127.0.0.1:8765" } },
});
