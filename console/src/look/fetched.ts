import { Refusal } from "@/api/http";
import { onScopeDispose, ref, shallowRef } from "vue";

const AGAIN_AFTER_MS = 10_000;

/**
 * Something that stays while the console is open: whether it is there, and why not. What could not be fetched is tried
 * again by itself, so that nothing empty stands for nothing known.
 */
export function useFetched(fetch: () => Promise<void>) {
  const loaded = ref(false);
  const problem = shallowRef<unknown>();
  let again: ReturnType<typeof setTimeout> | undefined;

  async function load() {
    clearTimeout(again);
    try {
      await fetch();
      loaded.value = true;
      problem.value = undefined;
    } catch (error) {
      problem.value = error;
      if (!(error instanceof Refusal) || error.status !== 401) {
        again = setTimeout(quietly, AGAIN_AFTER_MS);
      }
      throw error;
    }
  }

  /** The same where nobody waits for it; what went wrong is kept. */
  function quietly() {
    load().catch(() => undefined);
  }

  onScopeDispose(() => clearTimeout(again));
  return { loaded, problem, load, quietly };
}
