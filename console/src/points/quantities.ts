/** What points can measure; the ids are those of the core's Quantity. */
export const QUANTITIES: Record<string, string> = {
  "vibration-velocity": "vibration velocity, mm/s RMS",
  temperature: "temperature, °C",
  humidity: "relative humidity, %",
  "carbon-dioxide": "carbon dioxide, ppm",
  "carbon-monoxide": "carbon monoxide, ppm",
  ammonia: "ammonia, ppm",
  oxygen: "oxygen, % vol",
  "flammable-gas": "flammable gas, % LEL",
  level: "level, m",
  fill: "fill, %",
  pressure: "pressure, bar",
  voltage: "voltage, V",
  "heat-index": "temperature-humidity index",
  switch: "on or off",
  count: "count",
  other: "other",
};
