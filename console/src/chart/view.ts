import { computed, type WritableComputedRef } from "vue";
import { useRoute, useRouter } from "vue-router";
import { isBefore, type Before } from "./before";

/** How far back a page looks and with what it compares, kept in its address, so that a link opens just this view. */
export function useView(usualHours = 0): {
  hours: WritableComputedRef<number>;
  before: WritableComputedRef<Before>;
  /** The id of the place to which it is narrowed; empty for all. */
  place: WritableComputedRef<string>;
  set: (query: Record<string, string | undefined>) => void;
} {
  const route = useRoute();
  const router = useRouter();

  function set(query: Record<string, string | undefined>) {
    void router.replace({ query: { ...route.query, ...query } });
  }

  const hours = computed({
    get: () => {
      const asked = Number(route.query.hours);
      return Number.isFinite(asked) && asked > 0 && asked <= 5 * 366 * 24 ? asked : usualHours;
    },
    set: (span) => set({ hours: span === usualHours ? undefined : String(span) }),
  });
  const before = computed<Before>({
    get: () => (isBefore(route.query.compare) ? route.query.compare : "none"),
    set: (chosen) => set({ compare: chosen === "none" ? undefined : chosen }),
  });
  const place = computed({
    get: () => String(route.query.in ?? ""),
    set: (id) => set({ in: id || undefined }),
  });
  return { hours, before, place, set };
}
