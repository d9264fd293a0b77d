import "@fontsource-variable/source-sans-3/wght.css";
import "element-plus/theme-chalk/base.css";
import "element-plus/theme-chalk/dark/css-vars.css";
import "./look/theme.css";
import { createPinia } from "pinia";
import { createApp } from "vue";
import App from "./App.vue";
import { router } from "./rooms";

// After an upgrade a page that is still open asks for parts that there are no more: it is loaded anew, once.
window.addEventListener("vite:preloadError", (event) => {
  const loadedAnew = sessionStorage.getItem("loaded-anew");
  if (!loadedAnew || Date.now() - Number(loadedAnew) > 60_000) {
    sessionStorage.setItem("loaded-anew", String(Date.now()));
    event.preventDefault();
    window.location.reload();
  }
});

createApp(App).use(createPinia()).use(router).mount("#app");
