import { readdirSync } from "node:fs";
import js from "@eslint/js";
import imports from "eslint-plugin-import";
import jsxA11y from "eslint-plugin-jsx-a11y";
import reactHooks from "eslint-plugin-react-hooks";
import tseslint from "typescript-eslint";

const places = readdirSync("src/places");

/** A place is entered by its door alone, and nothing below the places knows of them. */
const doors = [
  ...places.map((place) => ({
    target: `./src/places/!(${place})/**`,
    from: `./src/places/${place}`,
    except: ["./door.ts"],
    message: `Import from places/${place}/door.ts, or move what is shared out of the place.`,
  })),
  { target: "./src/!(places|*.tsx)/**", from: "./src/places", message: "Places stand on top." },
];

export default tseslint.config(
  { ignores: ["node_modules", "src/api/schema.ts"] },
  js.configs.recommended,
  ...tseslint.configs.strict,
  jsxA11y.flatConfigs.recommended,
  reactHooks.configs.flat.recommended,
  {
    plugins: { import: imports },
    settings: { "import/resolver": { node: { extensions: [".ts", ".tsx"] } } },
    rules: {
      "@typescript-eslint/no-explicit-any": "error",
      "import/no-restricted-paths": ["error", { zones: doors }],
      "no-restricted-syntax": [
        "error",
        ...["Literal[value", "TemplateElement[value.raw"].map((node) => ({
          selector: `${node}=/text-\\[(\\d|clamp)/]`,
          message: "Sizes of text are tokens of theme.css.",
        })),
      ],
      "no-restricted-properties": [
        "error",
        { property: "invalidateQueries", message: "Use askAgain: first questions count too." },
      ],
      "max-lines": ["error", { max: 240, skipBlankLines: true, skipComments: true }],
    },
  },
  {
    files: ["src/**/*.ts", "src/**/*.tsx"],
    languageOptions: { parserOptions: { projectService: true } },
    rules: {
      "@typescript-eslint/no-floating-promises": "error",
      "@typescript-eslint/no-misused-promises": "error",
    },
  },
  { files: ["src/api/keys.ts"], rules: { "no-restricted-properties": "off" } },
);
