import { ref, shallowRef } from "vue";

/**
 * A long list that the service hands over in pages; an answer that another question has overtaken is left out.
 *
 * @param size of a page
 * @param fetch gives the page behind an item, or the first one
 */
export function usePages<T>(size: number, fetch: (after?: T) => Promise<T[]>) {
  const items = shallowRef<T[]>();
  const more = ref(false);
  const busy = ref(false);
  const error = shallowRef<unknown>();
  let turn = 0;

  async function load(further = false) {
    const mine = ++turn;
    busy.value = true;
    try {
      const known = further ? (items.value ?? []) : [];
      const page = await fetch(known.at(-1));
      if (mine === turn) {
        items.value = [...known, ...page];
        more.value = page.length === size;
        error.value = undefined;
      }
    } catch (problem) {
      if (mine === turn) {
        error.value = problem;
      }
    } finally {
      if (mine === turn) {
        busy.value = false;
      }
    }
  }

  return { items, more, busy, error, load };
}
