import { computed, provide, shallowRef } from "vue";
import { useRoute, useRouter, type LocationQueryValue } from "vue-router";
import { COMPARED, isBefore, type Before } from "./before";
import { bounded, keyOf, lastHours, PAGE_RANGE, type TimeRange } from "./timeRange";

/** What stands in an address that asks for no time. */
const USUAL = { from: undefined, until: undefined, hours: undefined };

/**
 * What a page looks at, kept in its address, so that a link opens just this view: a stretch of time or the last hours up to
 * now, and with what it is compared. Everything on the page follows it.
 */
export function useView(usualHours = 0) {
  const route = useRoute();
  const router = useRouter();
  /** The times that were looked at before, for the way back. */
  const earlier = shallowRef<Record<string, string | undefined>[]>([]);

  function set(query: Record<string, string | undefined>) {
    void router.replace({ query: { ...route.query, ...query }, hash: route.hash });
  }

  const asked = () => ({
    from: text(route.query.from),
    until: text(route.query.until),
    hours: text(route.query.hours),
  });

  /** Another time is looked at, and the one of now is kept for the way back. */
  function look(at: Record<string, string | undefined>) {
    earlier.value = [...earlier.value, asked()];
    set({ ...USUAL, ...at });
  }

  function back() {
    set(earlier.value.at(-1) ?? USUAL);
    earlier.value = earlier.value.slice(0, -1);
  }

  const chosen = computed<TimeRange | undefined>(() => {
    const [from, until] = [Date.parse(asked().from ?? ""), Date.parse(asked().until ?? "")];
    return from < until ? bounded({ from, until }) : undefined;
  });
  const hours = computed(() => {
    const wanted = Number(asked().hours);
    return Number.isFinite(wanted) && wanted > 0 && wanted <= 5 * 366 * 24 ? wanted : usualHours;
  });
  const before = computed<Before>({
    get: () => (isBefore(route.query.compare) ? route.query.compare : "none"),
    set: (with_) => set({ compare: with_ === "none" ? undefined : with_ }),
  });
  /** The id of the place to which it is narrowed; empty for all. */
  const place = computed({
    get: () => String(route.query.in ?? ""),
    set: (id) => set({ in: id || undefined }),
  });

  const show = (range: TimeRange) => {
    const { from, until } = bounded(range);
    look({ from: new Date(from).toISOString(), until: new Date(until).toISOString() });
  };
  provide(PAGE_RANGE, { chosen, show });
  provide(COMPARED, before);
  return {
    hours,
    chosen,
    show,
    showLast: (span: number) => look({ hours: span === usualHours ? undefined : String(span) }),
    back,
    mayGoBack: computed(() => earlier.value.length > 0),
    /** What another page has to be asked for to look at the same time. */
    query: computed(() => Object.fromEntries(Object.entries(asked()).filter(([, value]) => value !== undefined))),
    /** Changes when another time is to be looked at, but not because time passes. */
    key: () => keyOf(chosen.value, hours.value),
    current: () => chosen.value ?? lastHours(hours.value || 24),
    before,
    place,
    set,
  };
}

export type View = ReturnType<typeof useView>;

function text(value: LocationQueryValue | LocationQueryValue[] | undefined): string | undefined {
  return typeof value === "string" ? value : undefined;
}
