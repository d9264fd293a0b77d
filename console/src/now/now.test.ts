import type { Alert, Device, Place, Point } from "@/api/types";
import { useAlerts } from "@/alerts/alerts";
import { usePlaces } from "@/places/places";
import { usePoints } from "@/points/points";
import { mountIn, serviceStandIn } from "@/testing";
import { createPinia, setActivePinia } from "pinia";
import { afterEach, describe, expect, it, vi } from "vitest";
import NowRoom from "./NowRoom.vue";

const SITE = {
  id: "s",
  kind: "site",
  name: "Creamery",
  parentId: null,
  right: "edit",
  points: 2,
  openAlerts: 0,
} as unknown as Place;
const point = (name: string, severity: string, headroomPercent: number) =>
  ({
    id: name,
    name,
    placeId: "s",
    path: ["Creamery"],
    unit: "mm/s",
    decimals: 1,
    released: true,
    intervalSeconds: 10,
    latest: {
      time: new Date().toISOString(),
      value: 1,
      quality: "GOOD",
      severity,
      zone: "A",
      headroomPercent,
      nextZone: "C",
      nextBoundary: 5,
    },
  }) as unknown as Point;

async function now(answers: Record<string, unknown>) {
  setActivePinia(createPinia());
  serviceStandIn({
    "GET places": [SITE],
    "GET limits": [],
    "GET points": [],
    "GET alerts": [],
    "GET devices": [],
    "GET gateways": [],
    "GET gateways/heard": [],
    ...answers,
  });
  await Promise.allSettled([usePlaces().load(), usePoints().load(), useAlerts().load()]);
  return mountIn(NowRoom);
}

afterEach(() => {
  document.body.innerHTML = "";
  vi.unstubAllGlobals();
});

describe("now", () => {
  it("is calm when all is well", async () => {
    const room = await now({ "GET points": [point("Level", "normal", 80)] });
    expect(room.find("h1").text()).toBe("All is well");
    expect(room.text()).not.toContain("Silent");
  });

  it.each(["alerts", "points", "devices"])("is not well when the %s cannot be loaded", async (what) => {
    const room = await now({
      ["GET " + what]: new Response(JSON.stringify({ detail: "The disk is full." }), { status: 507 }),
    });
    expect(room.find("h1").text()).toBe("Now");
    expect(room.text()).toContain("Not everything could be loaded");
    expect(room.text()).toContain("The disk is full.");
  });

  it("puts first what needs attention next, before it alarms", async () => {
    const room = await now({
      "GET points": [point("calm", "normal", 80), point("nearly", "normal", 4), point("over", "warning", 90)],
    });
    expect(room.find("h1").text()).toBe("One value is outside of the normal zone");
    expect(room.findAll("tbody a").map((one) => one.text())).toEqual(["over", "nearly", "calm"]);
  });

  it("groups silent devices by cause, and names an unknown gateway", async () => {
    const device = {
      id: "d",
      name: "Spare",
      path: ["Creamery"],
      state: "never-heard",
      problem: "the application key is wrong",
      lastHeard: null,
    } as unknown as Device;
    const room = await now({
      "GET devices": [device],
      "GET gateways/heard": [{ eui: "02ab54fffe10a0ff", lastHeard: new Date().toISOString(), frames: 2 }],
    });
    expect(room.text()).toContain("Heard, but refused");
    expect(room.text()).toContain("the application key is wrong");
    expect(room.text()).toContain("02ab54fffe10a0ff");
  });

  it("shows open alerts above everything", async () => {
    const alert = {
      id: "a",
      severity: "critical",
      state: "acknowledged",
      summary: "Pump: 9 mm/s",
      placeId: "s",
      path: ["Creamery"],
      startedAt: "2026-03-01T08:00:00Z",
      raisedAt: "2026-03-01T08:00:00Z",
      learntAt: "2026-03-01T08:00:00Z",
      acknowledgedAt: "2026-03-01T08:01:00Z",
      acknowledgedBy: "ann",
      closedAt: null,
      guidance: "",
      notes: [{ at: "2026-03-01T08:01:00Z", person: "ann", text: "on my way" }],
      notices: [],
    } as unknown as Alert;
    const room = await now({ "GET alerts": [alert] });
    expect(room.find("h1").text()).toBe("One alert is being looked after");
    expect(room.text()).toMatch(/acknowledged\s+by ann/);
    expect(room.text()).toContain("“on my way”");
  });

  it("tells a newcomer where to begin", async () => {
    const room = await now({ "GET places": [] });
    expect(room.text()).toContain("Nothing here yet");
  });
});
