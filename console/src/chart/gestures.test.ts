import { describe, expect, it } from "vitest";
import { ref } from "vue";
import { useGestures } from "./gestures";
import type { TimeRange } from "./timeRange";

const HOUR = 3_600_000;
const START = Date.parse("2026-11-01T00:00Z");
const WIDTH = 100;

/** A chart of ten hours that is a hundred pixels wide and lets itself be moved. */
function chart() {
  let range: TimeRange = { from: START, until: START + 10 * HOUR };
  const pressed: number[] = [];
  const element = document.createElement("div");
  const { chosen, listeners } = useGestures(
    ref(element),
    { range: () => range, momentAt: (x) => range.from + (x / WIDTH) * (range.until - range.from) },
    { zoom: (wanted) => (range = wanted), press: (at) => pressed.push(hours(at)), leave: () => pressed.push(-1) },
  );
  const hours = (at: number) => Math.round(((at - START) / HOUR) * 100) / 100;
  const pointer = (type: "pointerdown" | "pointermove" | "pointerup", x: number, more: PointerEventInit = {}) =>
    listeners[type](new PointerEvent(type, { clientX: x, pointerId: 1, pointerType: "mouse", ...more }));
  return {
    pointer,
    chosen,
    pressed,
    element,
    wheel: (deltaY: number, x: number, ctrlKey = false) => {
      const event = new WheelEvent("wheel", { deltaY, clientX: x, ctrlKey, cancelable: true });
      listeners.wheel(event);
      return event.defaultPrevented;
    },
    key: (key: string) => listeners.keydown(new KeyboardEvent("keydown", { key })),
    seen: () => [hours(range.from), hours(range.until)],
  };
}

describe("a chart in the hand", () => {
  it("shows the stretch over which the mouse was drawn, in either direction", () => {
    const one = chart();
    one.pointer("pointerdown", 60);
    one.pointer("pointermove", 20);
    expect(one.chosen.value).toEqual({ from: 20, until: 60 });
    one.pointer("pointerup", 20);
    expect(one.seen()).toEqual([2, 6]);
    expect(one.chosen.value).toBeUndefined();
    expect(one.pressed).toEqual([]);
  });

  it("takes a press that hardly moved as a press", () => {
    const one = chart();
    one.pointer("pointerdown", 30);
    one.pointer("pointermove", 33);
    one.pointer("pointerup", 33);
    expect(one.pressed).toEqual([3.3]);
    expect(one.seen()).toEqual([0, 10]);
  });

  it("forgets a stretch that is given up with Escape", () => {
    const one = chart();
    one.pointer("pointerdown", 20);
    one.pointer("pointermove", 60);
    one.key("Escape");
    one.pointer("pointerup", 60);
    expect(one.seen()).toEqual([0, 10]);
  });

  it("moves with the shift key and with one finger", () => {
    for (const how of [{ shiftKey: true }, { pointerType: "touch" }]) {
      const one = chart();
      one.pointer("pointerdown", 20, how);
      one.pointer("pointermove", 40, how);
      one.pointer("pointermove", 50, how);
      one.pointer("pointerup", 50, how);
      expect(one.seen()).toEqual([-3, 7]);
    }
  });

  it("keeps what lies below two fingers below them", () => {
    const one = chart();
    const [left, right] = [
      { pointerType: "touch", pointerId: 1 },
      { pointerType: "touch", pointerId: 2 },
    ];
    one.pointer("pointerdown", 40, left);
    one.pointer("pointerdown", 60, right);
    one.pointer("pointermove", 70, right);
    one.pointer("pointermove", 80, right);
    expect(one.seen()).toEqual([2, 7]);
    one.pointer("pointermove", 20, left);
    // 4 h is at 20 pixels and 6 h at 80: a pixel is two minutes.
    expect(one.seen()).toEqual([3.33, 6.67]);
  });

  it("leaves the wheel to the page until the chart has the focus, and then zooms about the pointer", () => {
    const one = chart();
    expect(one.wheel(-1, 50)).toBe(false);
    expect(one.wheel(-1, 50, true)).toBe(true);
    expect(one.seen()).toEqual([1, 9]);
    document.body.append(one.element);
    one.element.tabIndex = 0;
    one.element.focus();
    expect(one.wheel(1, 0)).toBe(true);
    expect(one.seen()).toEqual([1, 11]);
  });

  it("is moved and zoomed by keys", () => {
    const one = chart();
    one.key("ArrowLeft");
    expect(one.seen()).toEqual([-2.5, 7.5]);
    one.key("ArrowRight");
    one.key("+");
    expect(one.seen()).toEqual([1, 9]);
    one.key("-");
    expect(one.seen()).toEqual([0, 10]);
    one.key("x");
    expect(one.seen()).toEqual([0, 10]);
  });
});
