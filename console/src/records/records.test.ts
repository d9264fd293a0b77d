import type { Device, LimitSet, Point } from "@/api/types";
import DecodeAgainForm from "@/devices/DecodeAgainForm.vue";
import DaysTable from "@/points/DaysTable.vue";
import EraseForm from "@/points/EraseForm.vue";
import { button, mountIn, problem, serviceStandIn, type Call } from "@/testing";
import { flushPromises, type VueWrapper } from "@vue/test-utils";
import { ElDatePicker } from "element-plus";
import { createPinia, setActivePinia } from "pinia";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import BackupSheet from "./BackupSheet.vue";
import ChangesSheet from "./ChangesSheet.vue";
import CheckButton from "./CheckButton.vue";
import KeepingSheet from "./KeepingSheet.vue";
import RecordsRoom from "./RecordsRoom.vue";

let calls: Call[];
const bodies = (method: string) => calls.filter((call) => call.method === method).map((call) => call.body);

const RECORDS = {
  readings: 103482,
  waiting: 12,
  fileBytes: 3_000_000,
  reusableBytes: 0,
  detailBytes: 1_000_000,
  summaryBytes: 200_000,
  frames: 50,
  frameBytes: 20_000,
  waveformBytes: 3_000,
  freeBytes: 79_000_000_000,
  bytesPerReading: 2.43,
  readingsPerDay: 17280,
  bytesPerYear: 1_200_000_000,
  diskFullInDays: 4000,
  trouble: null as string | null,
  clockRemark: null as string | null,
  sites: [
    {
      siteId: "s",
      name: "Creamery",
      readings: 8656,
      bytes: 17000,
      points: [{ pointId: "p", number: 1, name: "Axial vibration", place: "Whey pump", readings: 8656, bytes: 17000 }],
    },
  ],
};
const KEEPING = {
  settings: {
    standard: { detail: 730, hours: 3650, days: 0 },
    quantities: { temperature: { detail: 90, hours: 3650, days: 0 } },
    points: {},
    frameDays: 90,
    dailyFiles: false,
    dailyFileDays: 365,
  },
  dailyFolder: "/records/daily-files",
};
const BACKUP = { name: "2026-03-01T02-00-00Z", at: "2026-03-01T02:00:00Z", readings: 350, bytes: 2_600_000 };

beforeEach(() => setActivePinia(createPinia()));
afterEach(() => {
  document.body.innerHTML = "";
  vi.unstubAllGlobals();
});

async function shown(component: Parameters<typeof mountIn>[0], answers: Record<string, unknown>, props = {}) {
  calls = serviceStandIn(answers);
  const wrapper = await mountIn(component, props);
  await flushPromises();
  return wrapper;
}

function choose(wrapper: VueWrapper, from: string, until: string) {
  wrapper.findComponent(ElDatePicker).vm.$emit("update:modelValue", [new Date(from), new Date(until)]);
  return flushPromises();
}

describe("the records", () => {
  const ALL = {
    "GET records": RECORDS,
    "GET records/keeping": KEEPING,
    "GET backups": { folder: "/b", backups: [] },
    "GET corrections": [],
  };

  it("say what a year takes and when the disk is full", async () => {
    const room = await shown(RecordsRoom, ALL);
    expect(room.text()).toContain("103\u202f482 readings in 3.0 MB");
    expect(room.text()).toContain("a year takes 1.2 GB");
    expect(room.text()).toContain("the disk is full in 11 years");
    expect(room.text()).toContain("Whey pump, Axial vibration");
  });

  it("say so when too little is known, and when nothing can be written", async () => {
    const room = await shown(RecordsRoom, {
      ...ALL,
      "GET records": {
        ...RECORDS,
        bytesPerYear: null,
        readingsPerDay: null,
        diskFullInDays: null,
        trouble: "the disk is full; make room",
        clockRemark: "The host's clock jumped 1 h 0 min ahead.",
      },
    });
    expect(room.text()).toContain("There are too few readings yet");
    expect(room.text()).toContain("Nothing can be written now");
    expect(room.text()).toContain("The host's clock jumped 1 h 0 min ahead.");
  });
});

describe("keeping", () => {
  it("is shown for all and for those that have a time of their own", async () => {
    const sheet = await shown(KeepingSheet, { "GET records/keeping": KEEPING, "PUT records/keeping": KEEPING });
    expect(sheet.findAll("tbody tr").map((row) => row.find("td").text())).toEqual(["all points", "temperature, °C"]);
    await button(sheet, "like all").trigger("click");
    await sheet.find("form").trigger("submit");
    await flushPromises();
    expect(bodies("PUT")).toEqual([{ ...KEEPING.settings, quantities: {} }]);
  });

  it("that makes no sense is refused in words", async () => {
    const sheet = await shown(KeepingSheet, {
      "GET records/keeping": KEEPING,
      "PUT records/keeping": problem(400, "hours are kept at least as long as every reading"),
    });
    await sheet.find("form").trigger("submit");
    await flushPromises();
    expect(sheet.text()).toContain("hours are kept at least as long");
  });
});

describe("backups", () => {
  it("none yet", async () => {
    const sheet = await shown(BackupSheet, { "GET backups": { folder: "/data/backups", backups: [] } });
    expect(sheet.text()).toContain("None yet");
    expect(sheet.text()).toContain("/data/backups");
  });

  it("are made, and removed only after a question", async () => {
    const sheet = await shown(BackupSheet, {
      "GET backups": { folder: "/data/backups", backups: [BACKUP] },
      "POST backups": BACKUP,
      [`DELETE backups/${BACKUP.name}`]: undefined,
    });
    await button(sheet, "Back up now").trigger("click");
    await flushPromises();
    expect(calls.filter((call) => call.method === "POST").map((call) => call.path)).toEqual(["backups"]);
    await button(sheet, "Remove …").trigger("click");
    expect(bodies("DELETE")).toHaveLength(0);
    await flushPromises();
    expect(document.body.textContent).toContain("This cannot be undone");
  });
});

describe("a check", () => {
  it("says that all is well", async () => {
    const check = await shown(CheckButton, { "POST records/check": { readings: 1234, faults: [] } });
    await button(check, "Check the records").trigger("click");
    await flushPromises();
    expect(check.text()).toContain("All is well: 1\u202f234 readings can be read.");
  });

  it("names what is wrong", async () => {
    const check = await shown(CheckButton, {
      "POST records/check": { readings: 5, faults: ["point 1: a chunk is damaged"] },
    });
    await button(check, "Check the records").trigger("click");
    await flushPromises();
    expect(check.find(".failed").text()).toContain("point 1: a chunk is damaged");
  });
});

describe("changes", () => {
  const CHANGE = {
    id: 3,
    at: "2026-03-01T08:00:00Z",
    person: "Kirsi",
    note: "hung outside",
    points: ["Humidity"],
    from: "2026-02-01T08:00:00Z",
    until: "2026-02-02T08:00:00Z",
    before: 144,
    after: 0,
    undoneAt: null,
    undoneBy: null,
  };

  it("are undone with one press, and say by whom", async () => {
    const answers = {
      "GET corrections": () => [
        calls.some((call) => call.method === "POST") ? { ...CHANGE, undoneAt: CHANGE.at, undoneBy: "Ville" } : CHANGE,
      ],
      "POST corrections/3/undo": CHANGE,
    };
    const sheet = await shown(ChangesSheet, answers);
    expect(sheet.text()).toContain("Humidity: 144 readings became 0");
    await button(sheet, "Undo").trigger("click");
    await flushPromises();
    expect(sheet.text()).toContain("undone by Ville");
  });

  it("there may be none", async () => {
    expect((await shown(ChangesSheet, { "GET corrections": [] })).text()).toContain("Readings can be erased");
  });
});

describe("erasing", () => {
  const point = { id: "p", name: "Humidity" } as Point;

  it("says first how many there are, and needs a reason", async () => {
    const form = await shown(
      EraseForm,
      {
        "POST points/p/erase": ({ body }: Call) => ({
          readings: 20,
          correctionId: (body as { dryRun: boolean }).dryRun ? 0 : 7,
        }),
      },
      { point },
    );
    await choose(form, "2026-03-01T08:00:00Z", "2026-03-01T09:00:00Z");
    expect(form.text()).toContain("20 readings of Humidity");
    expect(button(form, "Erase").attributes("disabled")).toBeDefined();
    await form.find("#erase-note").setValue("hung outside");
    await button(form, "Erase").trigger("click");
    await flushPromises();
    expect(bodies("POST").at(-1)).toMatchObject({
      dryRun: false,
      note: "hung outside",
      from: "2026-03-01T08:00:00.000Z",
    });
    expect(form.emitted("close")).toHaveLength(1);
  });

  it("of an empty range does nothing", async () => {
    const form = await shown(EraseForm, { "POST points/p/erase": { readings: 0, correctionId: 0 } }, { point });
    await choose(form, "2026-03-01T08:00:00Z", "2026-03-01T09:00:00Z");
    await form.find("#erase-note").setValue("why");
    expect(form.text()).toContain("There are no readings of Humidity");
    expect(button(form, "Erase").attributes("disabled")).toBeDefined();
  });
});

describe("reading frames again", () => {
  it("shows the differences before anything is changed", async () => {
    const report = {
      frames: 38,
      undecodable: 1,
      same: 100,
      changed: 2,
      added: 0,
      differences: [{ pointId: "p", point: "Humidity", time: "2026-03-01T08:00:00Z", before: 20, after: 40 }],
      correctionId: null,
    };
    const form = await shown(
      DecodeAgainForm,
      { "POST devices/d/decode-again": report },
      { device: { id: "d", name: "Float sender", modelName: "Float" } as Device },
    );
    expect(button(form, "Change these readings").attributes("disabled")).toBeDefined();
    await button(form, "Show what would change").trigger("click");
    await flushPromises();
    expect(form.text()).toContain("2 readings would change");
    expect(form.text()).toContain("1 frames cannot be decoded");
    expect(form.find(".rows tbody").text()).toContain("Humidity2040");
    await button(form, "Change these readings").trigger("click");
    await flushPromises();
    expect(bodies("POST").map((body) => (body as { dryRun: boolean }).dryRun)).toEqual([true, false]);
  });
});

describe("days", () => {
  const point = { id: "p", decimals: 2, unit: "mm/s" } as Point;
  const limits = {
    zones: [
      { label: "A", severity: "normal" },
      { label: "C", severity: "warning" },
    ],
  } as unknown as LimitSet;
  const DAY = {
    from: "2026-03-01T00:00:00Z",
    until: "2026-03-02T00:00:00Z",
    count: 144,
    bad: 0,
    min: 1.8,
    max: 6.5,
    mean: 2.1,
    last: 2,
  };

  it("show the extremes and the time in each zone", async () => {
    vi.useFakeTimers({ now: new Date("2026-03-02T12:00:00Z"), toFake: ["Date"] });
    const table = await shown(
      DaysTable,
      {
        "GET points/p/summaries?period=day&from=2026-02-22T12:00:00.000Z&until=2026-03-02T12:00:00.000Z": [
          { ...DAY, secondsInZone: { A: 82800, C: 1500 } },
        ],
      },
      { point, limits },
    );
    vi.useRealTimers();
    expect(table.find("tbody").text()).toContain("6.50 mm/s");
    expect(table.find(".zones").text()).toContain("A 23.0 h");
    expect(table.find(".zones .warning").text()).toBe("C 25 min");
  });
});
