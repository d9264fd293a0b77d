import { ref, shallowRef, watch, type WatchSource } from "vue";
import { everySeen } from "./clock";

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

/** Something that is fetched again when what it depends on changes, and every so often while somebody sees it. */
export function useRefreshed<T>(fetch: () => Promise<T>, dependsOn: WatchSource[], seconds: number) {
  const loaded = useLoad(fetch);
  watch(dependsOn, loaded.load);
  everySeen(seconds, () => void loaded.load());
  return loaded;
}
