import { t } from "@/language";
import type { Contents, Framing, Inlet, Source } from "@/api/types";

/** What commonly comes, with the settings that it begins with. */
export const COMMON: {
  id: string;
  title: string;
  framing: Framing;
  contents: Partial<Contents> & Pick<Contents, "form">;
}[] = [
  {
    id: "lines",
    title: t("lines of text, the address in a column"),
    framing: { kind: "lines" },
    contents: { form: "text", separator: ";", address: "column:0" },
  },
  {
    id: "json",
    title: t("JSON, the address in it"),
    framing: { kind: "whole" },
    contents: { form: "json", address: "json:$.id" },
  },
  {
    id: "topic",
    title: t("JSON, the address in the topic"),
    framing: { kind: "whole" },
    contents: { form: "json", address: "topic:serial" },
  },
  {
    id: "beacons",
    title: t("adverts of beacons that a relay heard, in JSON"),
    framing: { kind: "whole" },
    contents: {
      form: "json",
      each: "$.heard[*]",
      address: "json:$.mac",
      payload: "json:$.data",
      encoding: "hex",
      signal: "json:$.rssi",
    },
  },
  {
    id: "bytes",
    title: t("frames of bytes from a radio modem"),
    framing: {
      kind: "framed",
      start: "7e",
      lengthAt: 1,
      lengthAdds: 3,
      checksum: "crc-16-modbus",
      checksumOrder: "little",
    },
    contents: { form: "bytes", address: "bytes:0+2" },
  },
  {
    id: "csv",
    title: t("CSV with a first line that names its columns"),
    framing: { kind: "whole" },
    contents: { form: "csv", address: "json:$.device" },
  },
  { id: "senml", title: "SenML", framing: { kind: "whole" }, contents: { form: "senml" } },
];

const NOTHING: Contents = {
  form: "text",
  address: null,
  separator: null,
  each: null,
  payload: null,
  encoding: null,
  time: null,
  signal: null,
};

/** Ways in which an inlet is reached, or reaches others. */
export const KINDS: { id: Source["kind"]; title: string }[] = [
  { id: "tcp", title: t("senders connect to a TCP port") },
  { id: "udp", title: t("senders send to a UDP port") },
  { id: "serial", title: t("a bridge at a serial port") },
  { id: "http-inbox", title: t("senders post by HTTP") },
  { id: "http-fetch", title: t("an address is fetched by HTTP") },
  { id: "own-broker", title: t("senders publish to the broker of this service, by MQTT") },
  { id: "mqtt", title: t("topics of a broker elsewhere, by MQTT") },
  { id: "modbus-tcp", title: t("Modbus TCP devices are asked") },
  { id: "modbus-serial", title: t("Modbus RTU devices on a serial line are asked") },
  { id: "modbus-rtu-tcp", title: t("Modbus RTU devices behind a serial server are asked") },
  { id: "bacnet-ip", title: t("building controllers are asked, by BACnet/IP") },
];

/** Whether devices are asked, instead of speaking by themselves. */
export const isPolled = (kind: string) => kind.startsWith("modbus") || kind === "bacnet-ip";

/** Whether senders need a token of the inlet, which is shown once. */
export const hasToken = (kind: string) => kind === "http-inbox" || kind === "own-broker";

/** What the address of a device looks like there. */
export const ADDRESSES: Record<string, string> = {
  "modbus-tcp": t("host, host:port or host:port/unit"),
  "modbus-serial": t("their unit number"),
  "modbus-rtu-tcp": t("their unit number"),
  "bacnet-ip": t("the number of their device object, or number{'@'}host:port"),
};

/** What a form is filled with: as an inlet is, or as the commonest is. */
export function startOf(inlet?: Inlet) {
  const settings = inlet?.settings;
  const common = COMMON[0]!;
  const source = settings?.source;
  const line = source && "line" in source ? source.line : undefined;
  return {
    name: inlet?.name ?? "",
    kind: (source?.kind ?? "tcp") as Source["kind"],
    port: source && "port" in source ? (source.port ?? 47_808) : 4_001,
    bind: source && "bind" in source ? (source.bind ?? null) : null,
    tellsSensors: source?.kind === "http-inbox" ? Boolean(source.tellsSensors) : false,
    lookAt: source?.kind === "bacnet-ip" ? (source.lookAt ?? []).join("\n") : "",
    host: source?.kind === "modbus-rtu-tcp" ? source.host : "",
    device: line?.device ?? "/dev/ttyUSB0",
    baud: line?.baud ?? 9_600,
    parity: line?.parity ?? "none",
    timeoutMillis: source && "timeoutMillis" in source ? (source.timeoutMillis ?? 1_000) : 1_000,
    broker: source?.kind === "mqtt" ? source.url : "mqtt://",
    topics: source?.kind === "mqtt" || source?.kind === "own-broker" ? source.topics.join("\n") : "",
    username: source?.kind === "mqtt" ? (source.username ?? "") : "",
    version: source?.kind === "mqtt" ? (source.version ?? 5) : 5,
    url: source?.kind === "http-fetch" ? source.url : "https://",
    everySeconds: source?.kind === "http-fetch" ? source.everySeconds : 60,
    allowPrivate: source?.kind === "http-fetch" ? Boolean(source.allowPrivate) : false,
    secretName: "",
    secret: "",
    common: settings ? "" : common.id,
    framing: JSON.stringify(plain(settings?.framing ?? common.framing)),
    contents: { ...NOTHING, ...(settings?.contents ?? common.contents) } as Contents,
    keepEvery: settings?.keepEverySeconds ?? null,
  };
}
export type InletDraft = ReturnType<typeof startOf>;

/** Fills in what commonly goes with something. */
export function fill(draft: InletDraft, id: string) {
  const common = COMMON.find((one) => one.id === id);
  if (common) {
    draft.framing = JSON.stringify(common.framing);
    draft.contents = { ...NOTHING, ...common.contents };
  }
}

const lines = (text: string) =>
  text
    .split("\n")
    .map((line) => line.trim())
    .filter(Boolean);

/** The source that a form describes. */
export function sourceOf(draft: InletDraft): Source {
  const { port, host, device, baud, parity, timeoutMillis, url, everySeconds, allowPrivate } = draft;
  // The form does not ask for it, but keeps what was set otherwise.
  const bound = draft.bind ? { bind: draft.bind } : {};
  switch (draft.kind) {
    case "serial":
      return { kind: "serial", line: { device, baud, parity } };
    case "http-inbox":
      return { kind: "http-inbox", ...(draft.tellsSensors ? { tellsSensors: true } : {}) };
    case "http-fetch":
      return { kind: "http-fetch", url, everySeconds, allowPrivate };
    case "mqtt":
      return {
        kind: "mqtt",
        url: draft.broker,
        topics: lines(draft.topics),
        username: draft.username || null,
        version: draft.version,
      };
    case "own-broker":
      return { kind: "own-broker", topics: lines(draft.topics) };
    case "bacnet-ip":
      return { kind: "bacnet-ip", port, ...bound, lookAt: lines(draft.lookAt), timeoutMillis };
    case "modbus-tcp":
      return { kind: "modbus-tcp", timeoutMillis };
    case "modbus-rtu-tcp":
      return { kind: "modbus-rtu-tcp", host, port, timeoutMillis };
    case "modbus-serial":
      return { kind: "modbus-serial", line: { device, baud, parity }, timeoutMillis };
    default:
      return { kind: draft.kind, port, ...bound };
  }
}

/** What the service is asked for. Empty fields are nothing. */
export function requestOf(draft: InletDraft, siteId: string) {
  let framing: unknown;
  try {
    framing = JSON.parse(draft.framing);
  } catch (problem) {
    throw new Error(t("The framing is no JSON: {message}", { message: (problem as Error).message }), {
      cause: problem,
    });
  }
  const contents = Object.fromEntries(Object.entries(draft.contents).map(([key, value]) => [key, value || null]));
  const common = { name: draft.name, siteId, source: sourceOf(draft), keepEverySeconds: draft.keepEvery };
  if (isPolled(draft.kind)) {
    return { ...common, framing: null, contents: null };
  }
  const secretName = draft.kind === "mqtt" ? "password" : draft.secretName;
  const secrets = secretName && draft.secret ? { secrets: { [secretName]: draft.secret } } : {};
  return { ...common, framing, contents, ...secrets };
}

function plain(framing: Framing): unknown {
  return Object.fromEntries(Object.entries(framing).filter(([, value]) => value !== null));
}
