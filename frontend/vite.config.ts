import vue from "@vitejs/plugin-vue";
import { defineConfig } from "vitest/config";

export default defineConfig({
  plugins: [vue()],
  // Its components bring their styles, which Node alone cannot load.
  test: { server: { deps: { inline: [/element-plus.es.components.[^/]+.style/] } } },
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
