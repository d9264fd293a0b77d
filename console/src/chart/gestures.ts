import { ref, type Ref } from "vue";
import { moved, stretched, type TimeRange } from "./timeRange";

/** What a chart has to know for one to point into it. */
export interface Pointable {
  range: () => TimeRange;
  /** The moment at so many pixels from the left of the element; undefined as long as nothing is drawn. */
  momentAt: (x: number) => number | undefined;
}

/** What was meant: another time is wanted, or a moment was pressed. */
export interface Meant {
  zoom: (range: TimeRange) => void;
  press: (at: number) => void;
  leave: () => void;
}

/** Less than this many pixels is a press, not a drag. */
const DRAG_PIXELS = 6;
const WHEEL_FACTOR = 1.25;

/**
 * Zooms and moves a chart by mouse, by fingers and by keys. A drag with the mouse chooses a stretch, with the shift key it
 * moves; the wheel zooms while the chart has the focus or a control key is held, so that a page with charts still scrolls;
 * two fingers zoom, one moves sideways.
 */
export function useGestures(element: Ref<HTMLElement | null>, chart: Pointable, meant: Meant) {
  /** The stretch that is being chosen, in pixels from the left. */
  const chosen = ref<{ from: number; until: number }>();
  const fingers = new Map<number, number>();
  /** Where everything was when the mouse or a finger last went down. */
  let begun: { x: number; range: TimeRange; at: (x: number) => number; fingers: number[] } | undefined;

  const xOf = (event: MouseEvent) => event.clientX - (element.value?.getBoundingClientRect().left ?? 0);

  function down(event: PointerEvent) {
    const [left, right] = [chart.momentAt(0), chart.momentAt(1)];
    if ((event.pointerType === "mouse" && event.button !== 0) || left === undefined || right === undefined) {
      return;
    }
    fingers.set(event.pointerId, xOf(event));
    begun = {
      x: xOf(event),
      range: chart.range(),
      at: (x) => left + x * (right - left),
      fingers: [...fingers.values()].sort((a, b) => a - b),
    };
  }

  function move(event: PointerEvent) {
    if (!begun || !fingers.has(event.pointerId)) {
      return;
    }
    const x = xOf(event);
    fingers.set(event.pointerId, x);
    if (event.pointerType === "mouse" && !event.shiftKey) {
      const [from = 0, until = 0] = [begun.x, x].sort((a, b) => a - b);
      chosen.value = until - from > DRAG_PIXELS ? { from, until } : undefined;
      element.value?.setPointerCapture?.(event.pointerId);
    } else if (fingers.size === 2) {
      meant.zoom(
        pinched(
          begun,
          [...fingers.values()].sort((a, b) => a - b),
        ),
      );
    } else if (Math.abs(x - begun.x) > DRAG_PIXELS) {
      meant.zoom(moved(begun.range, (begun.at(begun.x) - begun.at(x)) / (begun.range.until - begun.range.from)));
    }
  }

  function up(event: PointerEvent) {
    const start = begun;
    const stretch = chosen.value;
    cancel(event);
    const end = xOf(event);
    if (stretch && start) {
      meant.zoom({ from: start.at(stretch.from), until: start.at(stretch.until) });
    } else if (start && Math.abs(end - start.x) <= DRAG_PIXELS) {
      meant.press(start.at(end));
    }
  }

  function cancel(event: PointerEvent) {
    fingers.delete(event.pointerId);
    begun = undefined;
    chosen.value = undefined;
  }

  function wheel(event: WheelEvent) {
    const about = chart.momentAt(xOf(event));
    const mine = event.ctrlKey || event.metaKey || element.value?.contains(document.activeElement);
    if (mine && event.deltaY !== 0 && about !== undefined) {
      event.preventDefault();
      meant.zoom(stretched(chart.range(), event.deltaY > 0 ? WHEEL_FACTOR : 1 / WHEEL_FACTOR, about));
    }
  }

  function key(event: KeyboardEvent) {
    const range = chart.range();
    const middle = (range.from + range.until) / 2;
    const wanted: Record<string, () => void> = {
      ArrowLeft: () => meant.zoom(moved(range, -0.25)),
      ArrowRight: () => meant.zoom(moved(range, 0.25)),
      "+": () => meant.zoom(stretched(range, 1 / WHEEL_FACTOR, middle)),
      "-": () => meant.zoom(stretched(range, WHEEL_FACTOR, middle)),
      Escape: () => ((chosen.value = undefined), (begun = undefined), meant.leave()),
    };
    const action = event.ctrlKey || event.metaKey || event.altKey ? undefined : wanted[event.key];
    if (action) {
      event.preventDefault();
      action();
    }
  }

  return {
    chosen,
    /** To be put on the element. */
    listeners: {
      pointerdown: down,
      pointermove: move,
      pointerup: up,
      pointercancel: cancel,
      wheel,
      keydown: key,
    },
  };
}

/** The time at which the moments that were below two fingers are below them again. */
function pinched(
  begun: { range: TimeRange; at: (x: number) => number; fingers: number[] },
  [left = 0, right = 0]: number[],
): TimeRange {
  const [from = 0, until = 0] = begun.fingers.map(begun.at);
  const pixels = Math.max(right - left, DRAG_PIXELS);
  const factor = (until - from) / pixels / (begun.at(1) - begun.at(0));
  // One moment stays below the left finger; then everything is moved by as much as that finger moved.
  const about = begun.at(left);
  const around = { from: begun.range.from + from - about, until: begun.range.until + from - about };
  return stretched(around, factor, from);
}
