/// <reference types="vitest/config" />
import { fileURLToPath } from "node:url";
import react from "@vitejs/plugin-react";
import { defineConfig } from "vite";

export default defineConfig({
  base: "/static/app/",
  plugins: [react()],
  resolve: { alias: { "@generated": fileURLToPath(new URL("./generated", import.meta.url)) } },
  build: {
    manifest: true,
    chunkSizeWarningLimit: 700,
    target: "es2022",
    assetsInlineLimit: 0,
    // A few files instead of thirty small ones: what every screen uses is in two of them.
    rolldownOptions: {
      output: {
        advancedChunks: {
          groups: [
            // But what opens menus and dialogs, and is dragged: that comes when it is first wanted.
            {
              name: "libraries",
              test: /node_modules\/(?!@use-gesture|@tanstack\/(react-)?virtual|@zag-js|@ark-ui|@floating-ui|.*components\/(menu|dialog|drawer|portal))/,
            },
            {
              name: "shared",
              test: /src\/(api|theme|words|ui(?!\/commands\/[FK])|drawing(?!\/charts)|document(?!\/working))\//,
            },
          ],
        },
      },
    },
  },
  test: {
    // Machines are noisy: how long a test takes says nothing.
    testTimeout: 60_000,
    maxWorkers: "100%",
    // Modules are read once for all files of a process; nothing in them may stay changed, see fixtures/browser.ts.
    isolate: false,
    projects: [
      { extends: true, test: { name: "logic", environment: "node", include: ["src/**/*.test.ts"] } },
      {
        extends: true,
        test: {
          name: "page",
          environment: "jsdom",
          include: ["src/**/*.test.tsx"],
          setupFiles: ["src/fixtures/browser.ts"],
        },
      },
    ],
  },
});
