import { defineConfigWithVueTs, vueTsConfigs } from "@vue/eslint-config-typescript";
import vue from "eslint-plugin-vue";

export default defineConfigWithVueTs(
  { ignores: ["dist/**", "target/**", "src/api/schema.ts"] },
  vue.configs["flat/recommended"],
  vueTsConfigs.recommended,
  {
    rules: {
      // How lines are broken is prettier's business.
      "vue/max-attributes-per-line": "off",
      "vue/singleline-html-element-content-newline": "off",
      "vue/html-self-closing": "off",
      "vue/html-indent": "off",
      // An optional prop is undefined when it is left out; the types say so.
      "vue/require-default-prop": "off",
      // Stand-ins for tests are short and stand together.
      "vue/one-component-per-file": "off",
      "vue/html-closing-bracket-newline": "off",
      "vue/multiline-html-element-content-newline": "off",
    },
  },
);
