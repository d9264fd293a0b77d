import type { Alert, Point } from "@/api/types";
import { lineOption } from "@/chart/lineOption";
import { HOUR } from "@/chart/timeRange";
import { describe, expect, it } from "vitest";
import { bandsOf, timeAround } from "./around";

const alert = (startedAt: string, returnedAt: string | null, closedAt: string | null = null) =>
  ({ startedAt, raisedAt: startedAt, returnedAt, closedAt, severity: "warning" }) as Alert;
const at = (text: string) => Date.parse(text);

describe("the time around an alert", () => {
  it("shows how it came and went", () => {
    expect(timeAround(alert("2026-03-01T10:00:00Z", "2026-03-01T11:00:00Z")).stretch).toEqual({
      from: at("2026-03-01T07:00:00Z"),
      until: at("2026-03-01T12:30:00Z"),
    });
    expect(timeAround(alert("2026-03-01T00:00:00Z", null, "2026-03-02T00:00:00Z")).stretch).toEqual({
      from: at("2026-02-28T00:00:00Z"),
      until: at("2026-03-02T12:00:00Z"),
    });
  });

  it("goes on as long as it applies", () => {
    const around = timeAround(alert(new Date(Date.now() - 10 * HOUR).toISOString(), null));
    expect(around.stretch).toBeUndefined();
    expect(around.hours).toBeCloseTo(20, 1);
  });
});

describe("alerts in a chart", () => {
  it("are bands within its time, wide enough to be seen", () => {
    const range = { from: at("2026-03-01T00:00:00Z"), until: at("2026-03-02T00:00:00Z") };
    const alerts = bandsOf([
      alert("2026-02-20T00:00:00Z", "2026-02-21T00:00:00Z"),
      alert("2026-02-28T20:00:00Z", "2026-03-01T06:00:00Z"),
      alert("2026-03-01T12:00:00Z", "2026-03-01T12:00:00Z"),
      alert("2026-03-01T20:00:00Z", null),
    ]);
    const point = { name: "Air", unit: "°C", decimals: 1 } as Point;
    const option = lineOption([{ point, times: [], values: [], qualities: [], gaps: [] }], undefined, {
      ...range,
      alerts,
      fixed: false,
      palette: (name) => name,
    }) as { series: { id?: string; markArea?: { data: { xAxis: number }[][] } }[] };
    const bands = option.series.find((one) => one.id === "alerts")?.markArea?.data;
    expect(bands?.map((band) => band.map((end) => (end.xAxis - range.from) / HOUR))).toEqual([
      [0, 6],
      [12, 12.06],
      [20, 24],
    ]);
  });
});
