import vue from "@vitejs/plugin-vue";
import { defineConfig } from "vite";

export default defineConfig({
  plugins: [vue()],
  build: {
    // Fonts and pictures stay files: the content policy takes nothing inline.
    assetsInlineLimit: 0,
    chunkSizeWarningLimit: 1200,
    rollupOptions: {
      input: { index: "index.html", offline: "src/offline/worker.ts" },
      // A worker answers for what lies beside and below it, so it lies at the top under a name that stays.
      output: {
        entryFileNames: (chunk) => (chunk.name === "offline" ? "offline.js" : "assets/[name]-[hash].js"),
      },
    },
  },
});
