import type { Quantity } from "@/api/types";

/** What points can measure, with the unit that it is kept in; complete by the types of the API. */
const KNOWN: Record<Quantity, [title: string, unit: string]> = {
  "vibration-velocity": ["vibration velocity, RMS", "mm/s"],
  temperature: ["temperature", "°C"],
  humidity: ["relative humidity", "%"],
  "carbon-dioxide": ["carbon dioxide", "ppm"],
  "carbon-monoxide": ["carbon monoxide", "ppm"],
  ammonia: ["ammonia", "ppm"],
  "hydrogen-sulphide": ["hydrogen sulphide", "ppm"],
  "nitrogen-dioxide": ["nitrogen dioxide", "ppm"],
  "fine-dust": ["fine dust, PM2.5", "µg/m³"],
  "coarse-dust": ["dust, PM10", "µg/m³"],
  "organic-vapours": ["volatile organic compounds", "mg/m³"],
  "sound-level": ["sound level", "dB(A)"],
  illuminance: ["illuminance", "lx"],
  conductivity: ["electrical conductivity", "mS/cm"],
  acidity: ["acidity", "pH"],
  oxygen: ["oxygen", "% vol"],
  "flammable-gas": ["flammable gas", "% LEL"],
  level: ["level", "m"],
  fill: ["fill", "%"],
  opening: ["opening", "%"],
  flow: ["flow", "m³/h"],
  pressure: ["pressure", "bar"],
  "air-pressure": ["air pressure", "hPa"],
  "wind-speed": ["wind speed", "m/s"],
  "wind-direction": ["wind direction", "°"],
  rainfall: ["rainfall", "mm"],
  "soil-moisture": ["soil moisture", "%"],
  voltage: ["voltage", "V"],
  current: ["electric current", "A"],
  power: ["power", "kW"],
  energy: ["energy", "kWh"],
  frequency: ["frequency", "Hz"],
  signal: ["signal strength", "dBm"],
  "heat-index": ["temperature-humidity index", "THI"],
  "dew-point": ["dew point", "°C"],
  "wet-bulb": ["wet-bulb temperature", "°C"],
  "vapour-pressure-deficit": ["vapour pressure deficit", "kPa"],
  "absolute-humidity": ["absolute humidity", "g/m³"],
  volume: ["volume", "m³"],
  altitude: ["height above sea level", "m"],
  duration: ["duration", "h"],
  "degree-hours": ["degree hours", "K·h"],
  latitude: ["latitude", "°"],
  longitude: ["longitude", "°"],
  "vibration-acceleration": ["vibration acceleration, RMS", "m/s²"],
  "vibration-displacement": ["vibration displacement, RMS", "µm"],
  "crest-factor": ["crest factor", ""],
  kurtosis: ["kurtosis", ""],
  "speed-of-rotation": ["speed of rotation", "1/min"],
  switch: ["on or off", ""],
  count: ["count", ""],
  other: ["other", ""],
};

/** What a quantity is called, with its unit. */
export const QUANTITIES: Record<string, string> = Object.fromEntries(
  Object.entries(KNOWN).map(([id, [title, unit]]) => [id, unit ? `${title}, ${unit}` : title]),
);

/** The unit of a quantity; empty for numbers without one. */
export const UNITS: Record<string, string> = Object.fromEntries(
  Object.entries(KNOWN).map(([id, [, unit]]) => [id, unit]),
);
