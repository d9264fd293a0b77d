import { computed, ref } from "vue";

/** From so many rows on one looks for a row, instead of reading down to it. */
const LONG = 30;

/** The rows of a list in which every word that was typed stands somewhere; upper and lower case are the same. */
export function useFound<T>(all: () => T[], words: (one: T) => string[]) {
  const text = ref("");
  const isLong = computed(() => all().length > LONG);
  const typed = computed(() => (isLong.value ? text.value.toLowerCase().split(/\s+/).filter(Boolean) : []));
  const found = computed(() =>
    typed.value.length
      ? all().filter((one) => {
          const line = words(one).join(" ").toLowerCase();
          return typed.value.every((word) => line.includes(word));
        })
      : all(),
  );
  return { text, found, isLong };
}
