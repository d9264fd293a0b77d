import type { Palette } from "./lineOption";

/** What all charts of lines have in common: letters and colours of the theme. */
export function chartLook(palette: Palette) {
  return {
    animation: false,
    textStyle: { fontFamily: palette("font"), color: palette("ink") },
  };
}

/** How one zooms into charts that are not over time. */
export const insideZoom = [{ type: "inside", zoomOnMouseWheel: "ctrl", moveOnMouseWheel: false, filterMode: "none" }];

/** What stands beside the pointer. */
export function tooltipLook(palette: Palette) {
  return {
    trigger: "axis",
    confine: true,
    backgroundColor: palette("sheet"),
    borderColor: palette("line-strong"),
    textStyle: { color: palette("ink") },
  };
}

/** The level axis, without lines across the chart. */
export function levelAxis(palette: Palette) {
  return {
    axisLine: { lineStyle: { color: palette("line-strong") } },
    splitLine: { show: false },
  };
}

/** The upright axis with its unit. */
export function uprightAxis(palette: Palette, unit: string | undefined) {
  return {
    type: "value",
    name: unit,
    nameTextStyle: { color: palette("ink-soft"), align: "right" },
    splitLine: { lineStyle: { color: palette("line"), opacity: 0.6 } },
  };
}

export const lineColours = (palette: Palette) => ["line-a", "line-b", "line-c", "line-d"].map(palette);
