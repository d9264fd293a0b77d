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
    title: "lines of text, the address in a column",
    framing: { kind: "lines" },
    contents: { form: "text", separator: ";", address: "column:0" },
  },
  {
    id: "json",
    title: "JSON, the address in it",
    framing: { kind: "whole" },
    contents: { form: "json", address: "json:$.id" },
  },
  {
    id: "beacons",
    title: "adverts of beacons that a relay heard, in JSON",
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
    title: "frames of bytes from a radio modem",
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
    title: "CSV with a first line that names its columns",
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

/** What a form is filled with: as an inlet is, or as the commonest is. */
export function startOf(inlet?: Inlet) {
  const settings = inlet?.settings;
  const common = COMMON[0]!;
  const source = settings?.source;
  return {
    name: inlet?.name ?? "",
    kind: (source?.kind ?? "tcp") as Source["kind"],
    port: source && "port" in source ? source.port : 4_001,
    device: source?.kind === "serial" ? source.device : "/dev/ttyUSB0",
    baud: source?.kind === "serial" ? source.baud : 9_600,
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

/** The source that a form describes. */
export function sourceOf(draft: InletDraft): Source {
  switch (draft.kind) {
    case "serial":
      return { kind: "serial", device: draft.device, baud: draft.baud };
    case "http-inbox":
      return { kind: "http-inbox" };
    default:
      return { kind: draft.kind, port: draft.port };
  }
}

/** What the service is asked for. Empty fields are nothing. */
export function requestOf(draft: InletDraft, siteId: string) {
  let framing: unknown;
  try {
    framing = JSON.parse(draft.framing);
  } catch (problem) {
    throw new Error("The framing is no JSON: " + (problem as Error).message, { cause: problem });
  }
  const contents = Object.fromEntries(Object.entries(draft.contents).map(([key, value]) => [key, value || null]));
  return { name: draft.name, siteId, source: sourceOf(draft), framing, contents, keepEverySeconds: draft.keepEvery };
}

function plain(framing: Framing): unknown {
  return Object.fromEntries(Object.entries(framing).filter(([, value]) => value !== null));
}
