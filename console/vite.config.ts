import vue from "@vitejs/plugin-vue";
import Components from "unplugin-vue-components/vite";
import { ElementPlusResolver } from "unplugin-vue-components/resolvers";
import { fileURLToPath } from "node:url";
import { defineConfig } from "vitest/config";

const service = process.env.PASTURE_AT ?? "http://127.0.0.1:8470";

/** Tests that put something in the place of a module, or look at who listens to the stream. */
const apart = ["src/look/shownOnce.test.ts", "src/api/live.test.ts"];

export default defineConfig({
  plugins: [vue(), Components({ dirs: [], dts: false, resolvers: [ElementPlusResolver({ importStyle: "css" })] })],
  resolve: { alias: { "@": fileURLToPath(new URL("./src", import.meta.url)) } },
  // What of vue-i18n is not used: its components, its older interface, its tools.
  define: {
    __VUE_I18N_FULL_INSTALL__: false,
    __VUE_I18N_LEGACY_API__: false,
    __INTLIFY_PROD_DEVTOOLS__: false,
    __INTLIFY_DROP_MESSAGE_COMPILER__: false,
  },
  build: { chunkSizeWarningLimit: 900, assetsDir: "assets" },
  // The guide is kept with the other documents.
  server: { proxy: { "/api": service }, fs: { allow: [".", "../docs/guide"] } },
  test: {
    environment: "jsdom",
    setupFiles: ["src/tidy.ts"],
    server: { deps: { inline: ["element-plus"] } },
    projects: [
      // One process for many files: most of the time of a file went into loading what all of them use.
      { extends: true, test: { name: "together", isolate: false, include: ["src/**/*.test.ts"], exclude: apart } },
      { extends: true, test: { name: "apart", include: apart } },
    ],
  },
});
