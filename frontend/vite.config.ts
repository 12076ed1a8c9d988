import vue from "@vitejs/plugin-vue";
import { defineConfig } from "vite";

export default defineConfig({
  plugins: [vue()],
  build: {
    // Fonts and pictures stay files: the content policy takes nothing inline.
    assetsInlineLimit: 0,
    chunkSizeWarningLimit: 1200,
  },
});
