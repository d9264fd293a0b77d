import { computed, onBeforeUnmount, onMounted, ref, watch, type Ref } from "vue";

/** Shorter lists are shown whole: they are quick, and a browser finds all of their words. */
const SHOWN_WHOLE = 120;
/** Rows above and below what is seen, so that a quick hand meets no gap. */
const BESIDE = 20;
const USUAL_ROW_PIXELS = 56;

/**
 * Of the rows of a long list those that are near what is seen, and how high the space above and below them is, in pixels. The
 * page scrolls; rows have about the same height, which is measured.
 *
 * @param body what holds the rows, and two rows of space around them
 */
export function useRowsInSight<T>(all: () => T[], body: Ref<HTMLElement | null>) {
  const rowPixels = ref(USUAL_ROW_PIXELS);
  const first = ref(0);
  const many = ref(Math.ceil(window.innerHeight / USUAL_ROW_PIXELS) + 2 * BESIDE);
  const isLong = computed(() => all().length > SHOWN_WHOLE);
  let waiting = 0;

  function look() {
    waiting = 0;
    if (!body.value || !isLong.value) {
      return;
    }
    const { top, height } = body.value.getBoundingClientRect();
    const drawn = height - above.value - below.value;
    const measured = shown.value.length ? drawn / shown.value.length : 0;
    // Rows differ a little; what is measured follows only what is really another height.
    if (measured > 0 && Math.abs(measured - rowPixels.value) > rowPixels.value / 5) {
      rowPixels.value = measured;
    }
    many.value = Math.ceil(window.innerHeight / rowPixels.value) + 2 * BESIDE;
    const begin = Math.floor(-top / rowPixels.value) - BESIDE;
    first.value = Math.max(0, Math.min(begin, all().length - many.value));
  }

  const shown = computed(() => (isLong.value ? all().slice(first.value, first.value + many.value) : all()));
  const above = computed(() => (isLong.value ? first.value * rowPixels.value : 0));
  const below = computed(() =>
    isLong.value ? Math.max(0, all().length - first.value - shown.value.length) * rowPixels.value : 0,
  );

  const later = () => (waiting ||= window.requestAnimationFrame(look));
  onMounted(() => {
    window.addEventListener("scroll", later, { passive: true });
    window.addEventListener("resize", later, { passive: true });
    later();
  });
  onBeforeUnmount(() => {
    window.removeEventListener("scroll", later);
    window.removeEventListener("resize", later);
    window.cancelAnimationFrame(waiting);
  });
  watch(() => all().length, later);
  return { shown, above, below, first, partly: isLong };
}
