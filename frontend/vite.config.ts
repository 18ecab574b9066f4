import react from "@vitejs/plugin-react";
import { VitePWA } from "vite-plugin-pwa";
import { configDefaults, defineConfig } from "vitest/config";

const APART = "src/**/*.apart.test.{ts,tsx}";

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
        // `newest`: src/offline/worker.ts
        navigateFallbackDenylist: [/^\/api\//, /^\/p\//, /[?&]newest=/],
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
  // the files of one worker share a page and the modules, which are read once; one that puts others in the place of
  // modules (vi.mock) has its own: *.apart.test.ts
  test: {
    environment: "jsdom",
    setupFiles: ["src/testing/setup.ts"],
    pool: "threads",
    // how quick the machine is decides nothing: others work on it at the same time
    testTimeout: 60_000,
    projects: [
      { extends: true, test: { name: "together", isolate: false, exclude: [...configDefaults.exclude, APART] } },
      { extends: true, test: { name: "apart", include: [APART] } },
    ],
  },
});
