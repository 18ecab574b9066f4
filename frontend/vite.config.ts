import react from "@vitejs/plugin-react";
import { defineConfig } from "vitest/config";

export default defineConfig({
  plugins: [react()],
  build: { target: "es2022", assetsInlineLimit: 0 },
  server: { proxy: { "/api": "http://127.0.0.1:8420" } },
  test: { environment: "jsdom", setupFiles: ["src/testing/setup.ts"] },
});
