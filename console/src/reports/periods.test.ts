import { expect, it } from "vitest";
import { reportAddress, scheduleWords } from "./periods";

it("asks for whole periods of the site's calendar by their name", () => {
  expect(reportAddress("places/a", "recent", null)).toBe("places/a/report");
  expect(reportAddress("places/a", "month", null)).toBe("places/a/report?last=month");
});

it("asks for a period of one's own once both ends are chosen", () => {
  expect(reportAddress("dashboards/a", "own", null)).toBeUndefined();
  const range: [Date, Date] = [new Date("2026-11-01T00:00:00Z"), new Date("2026-11-02T06:30:00Z")];
  expect(reportAddress("dashboards/a", "own", range)).toBe(
    "dashboards/a/report?from=2026-11-01T00:00:00.000Z&until=2026-11-02T06:30:00.000Z",
  );
});

it("says when a report is sent and to whom", () => {
  expect(scheduleWords({ period: "week", at: "06:30:00", recipients: ["person:anna", "office@farm.example"] })).toBe(
    "Each Monday at 06:30 to anna, office@farm.example",
  );
});
