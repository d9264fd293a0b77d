import vue from "@vitejs/plugin-vue";
import Components from "unplugin-vue-components/vite";
import { ElementPlusResolver } from "unplugin-vue-components/resolvers";
import { fileURLToPath } from "node:url";
import { defineConfig } from "vitest/config";

const service = process.env.PASTURE_AT ?? "http://127.0.0.1:8470";

export default defineConfig({
  plugins: [vue(), Components({ dirs: [], dts: false, resolvers: [ElementPlusResolver({ importStyle: "css" })] })],
  resolve: { alias: { "@": fileURLToPath(new URL("./src", import.meta.url)) } },
  build: { chunkSizeWarningLimit: 900, assetsDir: "assets" },
  server: { proxy: { "/api": service } },
  test: { environment: "jsdom", include: ["src/**/*.test.ts"], server: { deps: { inline: ["element-plus"] } } },
});
