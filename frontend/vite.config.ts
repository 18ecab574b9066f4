import react from "@vitejs/plugin-react";
import { VitePWA } from "vite-plugin-pwa";
import { defineConfig } from "vitest/config";

export default defineConfig({
  plugins: [
    react(),
    // the shell and every step are kept in the browser: any step opens without a connection
    VitePWA({
      injectRegister: null,
      registerType: "prompt",
      manifest: {
        name: "Oblatus",
        short_name: "Oblatus",
        description: "Wedges chosen for the swing, the turf and the sand.",
        start_url: "/",
        display: "standalone",
        background_color: "#EEF1EC",
        theme_color: "#EEF1EC",
        icons: [{ src: "/icon.svg", sizes: "any", type: "image/svg+xml" }],
      },
      workbox: {
        globPatterns: ["**/*.{js,css,html,svg,woff2,webmanifest}"],
        navigateFallback: "/index.html",
        navigateFallbackDenylist: [/^\/api\//, /^\/p\//],
        // the player's page keeps itself, by a worker of its own
        globIgnores: ["**/phone*", "**/Archivo*"],
        cleanupOutdatedCaches: true,
        inlineWorkboxRuntime: true,
        sourcemap: false,
      },
    }),
  ],
  build: { target: "es2022", assetsInlineLimit: 0, rollupOptions: { input: ["index.html", "phone.html"] } },
  server: { proxy: { "/api": "http://127.0.0.1:8420" } },
  test: { environment: "jsdom", setupFiles: ["src/testing/setup.ts"] },
});
