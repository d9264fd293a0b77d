import { mountIn } from "@/testing";
import { flushPromises } from "@vue/test-utils";
import { describe, expect, it, vi } from "vitest";
import { defineComponent, h } from "vue";
import { bounded, moved, stretched, words, type TimeRange } from "./timeRange";
import { useView, type View } from "./view";
import ViewPicker from "./ViewPicker.vue";

const HOUR = 3_600_000;
const at = (text: string) => Date.parse(text);
const range = (from: string, until: string): TimeRange => ({ from: at(from), until: at(until) });

describe("a time that is looked at", () => {
  it("has an end after its start, and none in the future", () => {
    const later = Date.now() + HOUR;
    expect(bounded({ from: later - 3 * HOUR, until: later }).until).toBeLessThanOrEqual(Date.now());
    expect(bounded({ from: 9000, until: 2000 })).toEqual({ from: 2000, until: 9000 });
    expect(bounded({ from: 5000, until: 5000 })).toEqual({ from: 4000, until: 5000 });
    expect(bounded({ from: later, until: later + HOUR }).from).toBeLessThan(Date.now());
  });

  it("moves by a part of itself, and later no further than now", () => {
    const day = range("2026-11-01T00:00Z", "2026-11-02T00:00Z");
    expect(moved(day, -1)).toEqual(range("2026-10-31T00:00Z", "2026-11-01T00:00Z"));
    const now = Date.now();
    const close = moved({ from: now - 3 * HOUR, until: now - HOUR }, 1);
    expect(close.until - close.from).toBe(2 * HOUR);
    expect(Math.abs(close.until - now)).toBeLessThan(1000);
  });

  it("is made longer and shorter about a moment that stays", () =>
    expect(stretched(range("2026-11-01T00:00Z", "2026-11-01T10:00Z"), 0.5, at("2026-11-01T02:00Z"))).toEqual(
      range("2026-11-01T01:00Z", "2026-11-01T06:00Z"),
    ));

  it("is said on the clock of the site", () =>
    expect(words(range("2025-11-01T00:00Z", "2025-11-01T10:00Z"), "Asia/Kolkata")).toMatch(
      /05:30.*15:30.*(IST|GMT\+5:30)$/,
    ));
});

describe("what a page looks at", () => {
  async function page(address: string) {
    let view: View | undefined;
    const Page = defineComponent(() => {
      view = useView(24);
      const seen = view;
      return () => h(ViewPicker, { view: seen, timeZone: "Pacific/Auckland" });
    });
    const wrapper = await mountIn(Page, {}, address);
    return { view: view as View, wrapper, router: wrapper.vm.$router };
  }

  it("is in its address, and back leads to what was looked at before", async () => {
    const { view, router } = await page("/here?compare=week");
    expect(view.chosen.value).toBeUndefined();
    view.showLast(6);
    await flushPromises();
    view.show(range("2026-11-01T00:00Z", "2026-11-02T00:00Z"));
    await flushPromises();
    expect(router.currentRoute.value.query).toEqual({
      compare: "week",
      from: "2026-11-01T00:00:00.000Z",
      until: "2026-11-02T00:00:00.000Z",
    });
    view.back();
    await flushPromises();
    expect(router.currentRoute.value.query).toEqual({ compare: "week", hours: "6" });
    view.back();
    await flushPromises();
    expect(router.currentRoute.value.query).toEqual({ compare: "week" });
    expect(view.mayGoBack.value).toBe(false);
  });

  it("ignores an address that makes no sense", async () => {
    for (const query of [
      "from=x&until=y",
      "from=2026-11-02&until=2026-11-01",
      "from=2026-11-02",
      "hours=-3",
      "hours=1e9",
    ]) {
      const { view } = await page("/here?" + query);
      expect(view.chosen.value).toBeUndefined();
      expect(view.hours.value).toBe(24);
    }
  });

  it("is chosen by days and times on the clock of the site", async () => {
    const { view, wrapper } = await page("/here?from=2026-11-01T11:00:00Z&until=2026-11-02T11:00:00Z");
    await wrapper
      .findAll("button")
      .find((one) => one.text().startsWith("Choose dates"))
      ?.trigger("click");
    const fields = await vi.waitFor(() => {
      const found = [...document.querySelectorAll<HTMLInputElement>("input[type=datetime-local]")];
      expect(found.map((field) => field.value)).toEqual(["2026-11-02T00:00", "2026-11-03T00:00"]);
      return found;
    });
    const fill = (field: HTMLInputElement | undefined, text: string) => {
      if (field) {
        field.value = text;
        field.dispatchEvent(new Event("input"));
      }
    };
    const form = fields[0]?.form;
    fill(fields[0], "2026-11-04T00:00");
    form?.dispatchEvent(new Event("submit"));
    await flushPromises();
    expect(document.querySelector("[role=alert]")?.textContent).toBe("The end must be after the start.");
    fill(fields[0], "2026-11-02T06:30");
    form?.dispatchEvent(new Event("submit"));
    await flushPromises();
    expect(view.chosen.value).toEqual(range("2026-11-01T17:30Z", "2026-11-02T11:00Z"));
  });
});
