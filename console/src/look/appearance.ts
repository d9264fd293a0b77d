import { ref, watch } from "vue";

export type Theme = "system" | "light" | "dark";

/** How this browser shows the console; kept in it. */
export const theme = ref<Theme>((localStorage.getItem("theme") as Theme | null) ?? "system");
export const typeSize = ref(Number(localStorage.getItem("type-size") ?? 16));
/** Whether dark colours are in use now; charts redraw with it. */
export const dark = ref(false);

const system = window.matchMedia?.("(prefers-color-scheme: dark)");

function apply() {
  dark.value = theme.value === "dark" || (theme.value === "system" && (system?.matches ?? false));
  document.documentElement.classList.toggle("dark", dark.value);
  document.documentElement.style.setProperty("--type-size", typeSize.value + "px");
  localStorage.setItem("theme", theme.value);
  localStorage.setItem("type-size", String(typeSize.value));
}

system?.addEventListener("change", apply);
watch([theme, typeSize], apply, { immediate: true });

/** A colour of the theme, for what draws on a canvas. */
export function colour(name: string): string {
  return getComputedStyle(document.documentElement)
    .getPropertyValue("--" + name)
    .trim();
}
