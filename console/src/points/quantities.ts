import { t } from "@/language";
import type { Quantity } from "@/api/types";

/** What points can measure, with the unit that it is kept in; complete by the types of the API. */
const KNOWN: Record<Quantity, [title: string, unit: string]> = {
  "vibration-velocity": [t("vibration velocity, RMS"), "mm/s"],
  temperature: [t("temperature"), "°C"],
  humidity: [t("relative humidity"), "%"],
  "carbon-dioxide": [t("carbon dioxide"), "ppm"],
  "carbon-monoxide": [t("carbon monoxide"), "ppm"],
  ammonia: [t("ammonia"), "ppm"],
  "hydrogen-sulphide": [t("hydrogen sulphide"), "ppm"],
  "nitrogen-dioxide": [t("nitrogen dioxide"), "ppm"],
  "fine-dust": [t("fine dust, PM2.5"), "µg/m³"],
  "coarse-dust": [t("dust, PM10"), "µg/m³"],
  "organic-vapours": [t("volatile organic compounds"), "mg/m³"],
  "sound-level": [t("sound level"), "dB(A)"],
  illuminance: [t("illuminance"), "lx"],
  conductivity: [t("electrical conductivity"), "mS/cm"],
  acidity: [t("acidity"), "pH"],
  oxygen: [t("oxygen"), "% vol"],
  "flammable-gas": [t("flammable gas"), "% LEL"],
  level: [t("level"), "m"],
  fill: [t("fill"), "%"],
  opening: [t("opening"), "%"],
  flow: [t("flow"), "m³/h"],
  pressure: [t("pressure"), "bar"],
  "air-pressure": [t("air pressure"), "hPa"],
  "wind-speed": [t("wind speed"), "m/s"],
  "wind-direction": [t("wind direction"), "°"],
  rainfall: [t("rainfall"), "mm"],
  "soil-moisture": [t("soil moisture"), "%"],
  voltage: [t("voltage"), "V"],
  current: [t("electric current"), "A"],
  power: [t("power"), "kW"],
  energy: [t("energy"), "kWh"],
  frequency: [t("frequency"), "Hz"],
  signal: [t("signal strength"), "dBm"],
  "heat-index": [t("temperature-humidity index"), "THI"],
  "dew-point": [t("dew point"), "°C"],
  "wet-bulb": [t("wet-bulb temperature"), "°C"],
  "vapour-pressure-deficit": [t("vapour pressure deficit"), "kPa"],
  "absolute-humidity": [t("absolute humidity"), "g/m³"],
  volume: [t("volume"), "m³"],
  altitude: [t("height above sea level"), "m"],
  duration: [t("duration"), "h"],
  "degree-hours": [t("degree hours"), "K·h"],
  latitude: [t("latitude"), "°"],
  longitude: [t("longitude"), "°"],
  "vibration-acceleration": [t("vibration acceleration, RMS"), "m/s²"],
  "vibration-displacement": [t("vibration displacement, RMS"), "µm"],
  "crest-factor": [t("crest factor"), ""],
  kurtosis: [t("kurtosis"), ""],
  "speed-of-rotation": [t("speed of rotation"), "1/min"],
  switch: [t("on or off"), ""],
  count: [t("count"), ""],
  other: [t("other"), ""],
};

/** What a quantity is called, with its unit. */
export const QUANTITIES: Record<string, string> = Object.fromEntries(
  Object.entries(KNOWN).map(([id, [title, unit]]) => [id, unit ? `${title}, ${unit}` : title]),
);

/** The unit of a quantity; empty for numbers without one. */
export const UNITS: Record<string, string> = Object.fromEntries(
  Object.entries(KNOWN).map(([id, [, unit]]) => [id, unit]),
);
