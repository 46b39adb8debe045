import { svelte } from "@sveltejs/vite-plugin-svelte";
import tailwindcss from "@tailwindcss/vite";
import { VitePWA } from "vite-plugin-pwa";
import { defineConfig } from "vitest/config";

/** The shell opens without the line once it has been open; with the line, pages come fresh from the server. */
const shell = VitePWA({
  registerType: "autoUpdate",
  injectRegister: "script",
  manifest: false,
  workbox: {
    globPatterns: ["**/*.{js,css,html,woff2,svg}"],
    navigateFallback: null,
    inlineWorkboxRuntime: true,
    runtimeCaching: [
      {
        urlPattern: ({ request, url }) => request.mode === "navigate" && !url.pathname.startsWith("/api/"),
        handler: "NetworkOnly",
        options: { precacheFallback: { fallbackURL: "/index.html" } },
      },
    ],
  },
});

export default defineConfig(({ mode }) => ({
  plugins: [tailwindcss(), svelte(), ...(mode === "test" ? [] : [shell])],
  // Tests run the runes as a browser does, not as a server would.
  resolve: mode === "test" ? { conditions: ["browser"] } : {},
  // Inlined assets would need data: addresses in the content security policy.
  build: { assetsInlineLimit: 0, target: "es2022" },
  server: { proxy: { "/api": "http://127.0.0.1:8427" } },
  test: { include: ["src/**/*.test.ts"] },
}));
