import "@fontsource-variable/source-sans-3/wght.css";
import "element-plus/theme-chalk/base.css";
import "element-plus/theme-chalk/dark/css-vars.css";
import "./look/theme.css";
import { createPinia } from "pinia";
import { createApp } from "vue";
import App from "./App.vue";
import { router } from "./rooms";

createApp(App).use(createPinia()).use(router).mount("#app");
