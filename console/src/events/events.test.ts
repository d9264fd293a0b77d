import type { LoggedEvent } from "@/api/types";
import { expect, it } from "vitest";
import { EVERYTHING, leadsTo, withKinds } from "./events";

it("leads to what an event is about, the alert before its point", () => {
  const event = { alertId: null, deviceId: null, pointId: null } as LoggedEvent;
  expect(leadsTo({ ...event, alertId: "a", pointId: "p" })).toBe("/alerts/a");
  expect(leadsTo({ ...event, deviceId: "d" })).toBe("/fleet/devices/d");
  expect(leadsTo({ ...event, pointId: "p" })).toBe("/points/p");
  expect(leadsTo(event)).toBeUndefined();
});

it("leaves changes out unless somebody asks for them", () => {
  expect(withKinds("place=p")).toBe("place=p&kind=alert%2Cnote%2Clogbook%2Cnotice%2Ccommand%2Ccorrection");
  expect(withKinds("kind=change")).toBe("kind=change");
  expect(withKinds(`kind=${EVERYTHING}&text=a`)).toBe("text=a");
});
