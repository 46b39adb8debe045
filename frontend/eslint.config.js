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
    // The browser draws what the core said: no sums of mass, heat or money, and no verdict on them.
    files: ["src/screens/**"],
    // Two drawings lay their axes round what they show.
    ignores: ["**/*.test.ts", "**/heat/CurveLines.svelte", "**/weigh/ControlChart.svelte"],
    rules: {
      "no-restricted-syntax": [
        "error",
        ...["left", "right"].map((side) => ({
          selector: `BinaryExpression[operator=/^[-+*\\/]$/][${side}.property.name=/_(g|kg|c|k|kcal|cost|per_kg)$/]`,
          message: "Arithmetic of mass, heat or money belongs in the core.",
        })),
        ...["left", "right"].map((side) => ({
          selector: `BinaryExpression[operator=/^[<>]=?$/][${side}.property.name=/_(g|kg|c|k|kcal|cost|per_kg)$/][${side === "left" ? "right" : "left"}.property.name=/_(g|kg|c|k|kcal|cost|per_kg)$/]`,
          message: "A verdict on mass, heat or money belongs in the core.",
        })),
      ],
    },
  },
  {
    files: ["src/**"],
    ignores: ["src/lib/api/ask.ts"],
    rules: {
      "no-restricted-globals": [
        "error",
        { name: "fetch", message: "Only lib/api/ask.ts talks to the server." },
      ],
    },
  },
);
