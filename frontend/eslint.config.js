import js from "@eslint/js";
import svelte from "eslint-plugin-svelte";
import globals from "globals";
import ts from "typescript-eslint";
import svelteConfig from "./svelte.config.js";

export default ts.config(
  { ignores: ["dist/", "src/lib/api/generated/contract.d.ts"] },
  js.configs.recommended,
  ...ts.configs.recommended,
  ...svelte.configs.recommended,
  { languageOptions: { globals: globals.browser } },
  {
    files: ["**/*.svelte", "**/*.svelte.ts"],
    languageOptions: { parserOptions: { parser: ts.parser, extraFileExtensions: [".svelte"], svelteConfig } },
    // Links are plain addresses of our own single page.
    rules: { "svelte/no-navigation-without-resolve": "off" },
  },
  {
    files: ["src/**"],
    ignores: ["src/lib/api/client.ts"],
    rules: {
      "no-restricted-globals": [
        "error",
        { name: "fetch", message: "Only lib/api/client.ts talks to the server." },
      ],
    },
  },
);
