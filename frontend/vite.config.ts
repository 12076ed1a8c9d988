import vue from "@vitejs/plugin-vue";
import { VitePWA } from "vite-plugin-pwa";
import { defineConfig } from "vitest/config";

export default defineConfig({
  plugins: [
    vue(),
    VitePWA({
      strategies: "injectManifest",
      srcDir: "src/offline",
      filename: "offline.ts",
      injectRegister: false,
      injectManifest: { globPatterns: ["**/*.{js,css,html,svg,woff2}"], rollupFormat: "es" },
      manifest: {
        name: "Vivid Plank",
        short_name: "Vivid Plank",
        description: "From the drawing to milled parts",
        start_url: "/",
        display: "standalone",
        background_color: "#f3f4f3",
        theme_color: "#14181f",
        icons: [{ src: "/icon.svg", sizes: "any", type: "image/svg+xml" }],
      },
    }),
  ],
  // Of the library of words only what the screens use is built in.
  define: {
    __VUE_I18N_FULL_INSTALL__: false,
    __VUE_I18N_LEGACY_API__: false,
    __INTLIFY_PROD_DEVTOOLS__: false,
  },
  // Its components bring their styles, which Node alone cannot load.
  test: {
    setupFiles: "src/test/setup.ts",
    server: { deps: { inline: [/element-plus.es.components.[^/]+.style/] } },
  },
  build: {
    // Fonts and pictures stay files: the content policy takes nothing inline.
    assetsInlineLimit: 0,
    chunkSizeWarningLimit: 1200,
  },
});
