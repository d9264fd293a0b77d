import { loadLanguage } from "./language";

// After an upgrade a page that is still open asks for parts that there are no more: it is loaded anew, once.
window.addEventListener("vite:preloadError", (event) => {
  const loadedAnew = sessionStorage.getItem("loaded-anew");
  if (!loadedAnew || Date.now() - Number(loadedAnew) > 60_000) {
    sessionStorage.setItem("loaded-anew", String(Date.now()));
    event.preventDefault();
    window.location.reload();
  }
});

// Rooms keep texts in tables of theirs, so that the language comes first. Without its texts the console is English.
await loadLanguage().catch(() => undefined);
await import("./start");
