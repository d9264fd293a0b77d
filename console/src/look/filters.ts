import { computed, reactive, watch } from "vue";
import { useRoute, useRouter } from "vue-router";

const PATIENCE_MS = 300;

/**
 * Filters of a list that the service filters. They stand in the page's address, so that it leads back to the same view.
 *
 * @param names of the filters; "since" and "until" are days
 * @param changed is called some time after somebody changed one
 * @param fixed what else stands in the address
 */
export function useFilters<N extends string>(names: readonly N[], changed: () => void, fixed = {}) {
  const route = useRoute();
  const router = useRouter();
  const filter = reactive(Object.fromEntries(names.map((name) => [name, String(route.query[name] ?? "")]))) as Record<
    N,
    string
  >;
  const set = computed(() => Object.fromEntries(Object.entries<string>(filter).filter(([, value]) => value)));
  /** As the service is asked. A day ends where the next one begins. */
  const asked = computed(() => {
    const query = new URLSearchParams(set.value);
    const { since, until } = set.value;
    if (since) {
      query.set("since", new Date(since + "T00:00:00").toISOString());
    }
    if (until) {
      const end = new Date(until + "T00:00:00");
      end.setDate(end.getDate() + 1);
      query.set("until", end.toISOString());
    }
    return query.toString();
  });
  const filtered = computed(() => Object.keys(set.value).length > 0);

  let waiting: ReturnType<typeof setTimeout> | undefined;
  watch(set, (next) => {
    clearTimeout(waiting);
    waiting = setTimeout(() => {
      void router.replace({ query: { ...fixed, ...next } });
      changed();
    }, PATIENCE_MS);
  });

  return { filter, asked, filtered };
}
