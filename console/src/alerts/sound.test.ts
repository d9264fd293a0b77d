import type { Alert } from "@/api/types";
import { button, mountIn, serviceStandIn } from "@/testing";
import { flushPromises } from "@vue/test-utils";
import { createPinia, setActivePinia } from "pinia";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { useAlerts } from "./alerts";
import { soundFrom } from "./sound";
import SoundBar from "./SoundBar.vue";

let tones: number[];
const alert = (id: string, severity: string, part: object = {}) =>
  ({
    id,
    severity,
    summary: "Pump " + id,
    raisedAt: id,
    state: "open",
    acknowledgedAt: null,
    closedAt: null,
    ...part,
  }) as unknown as Alert;

class AudioStandIn {
  state = "running";
  currentTime = 0;
  destination = {};
  createGain = () => ({ gain: { value: 1 }, connect: () => undefined });
  createOscillator = () => {
    const tone = {
      frequency: { value: 0 },
      connect: () => undefined,
      start: () => void tones.push(tone.frequency.value),
      stop: () => undefined,
    };
    return tone;
  };
}

beforeEach(() => {
  tones = [];
  setActivePinia(createPinia());
  serviceStandIn({ "GET alerts": [] });
  vi.stubGlobal("AudioContext", AudioStandIn);
  vi.useFakeTimers();
});
afterEach(() => {
  soundFrom.value = "none";
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

describe("sound", () => {
  it("goes on until somebody acknowledges, and begins anew for what gets worse", async () => {
    soundFrom.value = "warning";
    const alerts = useAlerts();
    const bar = await mountIn(SoundBar, {});
    alerts.take(alert("a", "advisory"));
    await flushPromises();
    expect(tones).toEqual([]);
    alerts.take(alert("a", "warning"));
    await flushPromises();
    expect(tones).toEqual([520, 660]);
    expect(bar.text()).toContain("Sounding: Pump a");
    await vi.advanceTimersByTimeAsync(15_000);
    expect(tones).toHaveLength(4);
    await button(bar, "Silence here").trigger("click");
    await vi.advanceTimersByTimeAsync(60_000);
    expect(tones).toHaveLength(4);
    alerts.take(alert("a", "critical"));
    await flushPromises();
    expect(tones).toHaveLength(8);
    alerts.take(alert("a", "critical", { acknowledgedAt: "2026-03-01T08:00:00Z" }));
    await flushPromises();
    await vi.advanceTimersByTimeAsync(60_000);
    expect(tones).toHaveLength(8);
    expect(bar.text()).toBe("");
  });

  it("is off unless somebody has switched it on here", async () => {
    await mountIn(SoundBar, {});
    useAlerts().take(alert("b", "critical"));
    await flushPromises();
    await vi.advanceTimersByTimeAsync(60_000);
    expect(tones).toEqual([]);
  });
});
