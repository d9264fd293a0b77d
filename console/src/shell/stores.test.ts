import { closeLive } from "@/api/live";
import { useAlerts } from "@/alerts/alerts";
import type { Alert, Place, Point } from "@/api/types";
import { usePlaces } from "@/places/places";
import { usePoints } from "@/points/points";
import { problem, serviceStandIn, StreamStandIn } from "@/testing";
import { createPinia, setActivePinia } from "pinia";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { useSession } from "./session";

const place = (id: string, parentId: string | null, kind: Place["kind"], right: Place["right"] = "edit") =>
  ({ id, parentId, kind, name: id, right, limitSets: [], openAlerts: 0, points: 0 }) as unknown as Place;
const point = (id: string, placeId: string, severity: string, time = "2026-03-01T08:00:00Z") =>
  ({ id, placeId, name: id, latest: { time, value: 1, severity, headroomPercent: 50 } }) as unknown as Point;
const alert = (id: string, severity: string, part: Partial<Alert> = {}) =>
  ({
    id,
    severity,
    raisedAt: "2026-03-01T08:00:00Z",
    learntAt: "2026-03-01T08:00:00Z",
    acknowledgedAt: null,
    closedAt: null,
    ...part,
  }) as unknown as Alert;

const ANSWERS = {
  "GET session": { person: { name: "owner", owner: true, grants: [] } },
  "GET places": [
    place("site", null, "site"),
    place("room", "site", "area"),
    place("pump", "room", "asset", "look"),
    place("silo", "room", "asset"),
  ],
  "GET limits": [{ id: "l", zones: [] }],
  "GET points": [point("p1", "pump", "normal"), point("p2", "silo", "warning")],
  "GET alerts": [alert("a1", "warning"), alert("a2", "critical", { acknowledgedAt: "2026-03-01T08:05:00Z" })],
};

beforeEach(() => {
  setActivePinia(createPinia());
  StreamStandIn.install();
});
afterEach(() => {
  closeLive();
  vi.unstubAllGlobals();
});

describe("a session", () => {
  it("resumes with everything loaded and the stream open", async () => {
    serviceStandIn(ANSWERS);
    expect(await useSession().resume()).toBe(true);
    expect(useSession().owner).toBe(true);
    expect(usePlaces().loaded && usePoints().loaded && useAlerts().loaded).toBe(true);
    expect(StreamStandIn.opened).toHaveLength(1);
  });

  it("finds that nobody is signed in, and whether an owner is still to be made", async () => {
    serviceStandIn({ "GET session": problem(401, "You are not signed in."), "GET setup": { needed: true } });
    expect(await useSession().resume()).toBe(false);
    expect(useSession().setupNeeded).toBe(true);
  });

  it("does not mistake a service that is down for a sign-in that ended", async () => {
    serviceStandIn({ "GET session": problem(500, "Something went wrong.") });
    await expect(useSession().resume()).rejects.toThrow("Something went wrong.");
  });

  it("ends with the stream closed", async () => {
    serviceStandIn({ ...ANSWERS, "DELETE session": undefined });
    await useSession().resume();
    await useSession().signOut();
    expect(useSession().person).toBeUndefined();
    expect(StreamStandIn.newest.readyState).toBe(StreamStandIn.CLOSED);
  });
});

describe("what is shown while it changes", () => {
  beforeEach(async () => {
    serviceStandIn(ANSWERS);
    await useSession().resume();
  });

  it("places know their path, their children and what may be done", () => {
    const places = usePlaces();
    expect(places.path("pump").map((one) => one.id)).toEqual(["site", "room", "pump"]);
    expect(places.children("room").map((one) => one.id)).toEqual(["pump", "silo"]);
    expect(places.children(null).map((one) => one.id)).toEqual(["site"]);
    expect(places.may("edit", "silo")).toBe(true);
    expect(places.may("operate", "pump")).toBe(false);
    expect(places.may("operate", null)).toBe(false);
    expect(places.label(places.places[2] as Place)).toBe("site, room, pump");
  });

  it("a place is as bad as the worst point below it", () => {
    const { severities } = usePoints();
    expect(severities.get("pump")).toBe("normal");
    expect(severities.get("silo")).toBe("warning");
    expect(severities.get("site")).toBe("warning");
  });

  it("a live reading replaces an older one and never a newer one", () => {
    const points = usePoints();
    const told = (time: string, severity: string) =>
      StreamStandIn.newest.tell("reading", { pointId: "p1", latest: { time, value: 9, severity } });
    told("2026-03-01T08:00:10Z", "critical");
    expect(points.byId.get("p1")?.latest?.severity).toBe("critical");
    expect(points.severities.get("site")).toBe("critical");
    told("2026-03-01T07:00:00Z", "normal");
    expect(points.byId.get("p1")?.latest?.severity).toBe("critical");
    StreamStandIn.newest.tell("reading", { pointId: "unknown", latest: {} });
  });

  it("alerts are ordered by severity, count while they wait, and leave when they are closed", () => {
    const alerts = useAlerts();
    expect(alerts.open.map((one) => one.id)).toEqual(["a2", "a1"]);
    expect(alerts.waiting.map((one) => one.id)).toEqual(["a1"]);
    StreamStandIn.newest.tell("alert", alert("a3", "critical", { raisedAt: "2026-03-01T09:00:00Z" }));
    expect(alerts.open[0]?.id).toBe("a3");
    StreamStandIn.newest.tell("alert", alert("a3", "critical", { closedAt: "2026-03-01T09:10:00Z" }));
    expect(alerts.open.map((one) => one.id)).toEqual(["a2", "a1"]);
  });

  it("points that are gone leave with the next load", async () => {
    serviceStandIn({ ...ANSWERS, "GET points": [point("p2", "silo", "normal")] });
    await usePoints().load();
    expect(usePoints().all.map((one) => one.id)).toEqual(["p2"]);
  });
});
