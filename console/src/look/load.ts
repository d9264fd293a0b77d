import { ref, shallowRef } from "vue";

/** Something that is fetched: its data, whether it is on its way for the first time, and what went wrong. */
export function useLoad<T>(fetch: () => Promise<T>) {
  const data = shallowRef<T>();
  const loading = ref(true);
  const error = shallowRef<unknown>();
  let turn = 0;

  async function load() {
    const mine = ++turn;
    try {
      const found = await fetch();
      if (mine === turn) {
        data.value = found;
        error.value = undefined;
      }
    } catch (problem) {
      if (mine === turn) {
        error.value = problem;
      }
    } finally {
      if (mine === turn) {
        loading.value = false;
      }
    }
  }

  void load();
  return { data, loading, error, load };
}
