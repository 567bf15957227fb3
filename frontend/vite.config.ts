/// <reference types="vitest/config" />
import react from "@vitejs/plugin-react";
import { defineConfig } from "vite";

export default defineConfig({
  base: "/static/app/",
  plugins: [react()],
  build: { manifest: true, chunkSizeWarningLimit: 700, target: "es2022", assetsInlineLimit: 0 },
  // Machines are noisy: how long a test takes says nothing.
  test: {
    environment: "jsdom",
    include: ["src/**/*.test.{ts,tsx}"],
    testTimeout: 60_000,
    maxWorkers: "100%",
  },
});
