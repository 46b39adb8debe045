import { svelte } from "@sveltejs/vite-plugin-svelte";
import tailwindcss from "@tailwindcss/vite";
import { defineConfig } from "vitest/config";

export default defineConfig(({ mode }) => ({
  plugins: [tailwindcss(), svelte()],
  // Tests run the runes as a browser does, not as a server would.
  resolve: mode === "test" ? { conditions: ["browser"] } : {},
  // Inlined assets would need data: addresses in the content security policy.
  build: { assetsInlineLimit: 0, target: "es2022" },
  server: { proxy: { "/api": "http://127.0.0.1:8427" } },
  test: { include: ["src/**/*.test.ts"] },
}));
