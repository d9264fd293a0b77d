import { describe, expect, it } from "vitest";
import type { Device, Gateway } from "@/api/types";
import { sentence, silentByCause } from "./silence";

const device = (name: string, state: Device["state"], problem: string | null = null) =>
  ({ id: name, name, state, problem }) as Device;
const gateway = (name: string, state: Gateway["state"]) => ({ name, state }) as Gateway;

describe("silent devices", () => {
  it("are grouped by cause, the gateway's silence first and by name", () => {
    const groups = silentByCause(
      [
        device("battery?", "silent"),
        device("behind the mast", "silent-gateway"),
        device("fine", "online"),
        device("wrong key", "never-heard", "the key is wrong"),
      ],
      [gateway("Mast", "silent"), gateway("Stairs", "online")],
    );
    expect(groups.map((group) => [group.cause, group.devices.map((one) => one.name)])).toEqual([
      ["Gateway Mast is silent", ["behind the mast"]],
      ["Silent, though their gateway or inlet is there", ["battery?"]],
      ["Heard, but refused", ["wrong key"]],
    ]);
  });
});

describe("the headline", () => {
  it.each([
    [0, 0, 0, 0, "All is well"],
    [1, 1, 0, 0, "One alert waits for somebody"],
    [0, 2, 0, 0, "2 alerts are being looked after"],
    [2, 3, 1, 0, "2 alerts wait for somebody, one device does not report"],
    [0, 0, 0, 3, "3 values are stale"],
  ])("for %i waiting, %i open, %i silent, %i stale", (waiting, open, silent, stale, words) =>
    expect(sentence(true, waiting, open, silent, stale)).toBe(words),
  );

  it("does not say that all is well where not everything is known", () =>
    expect(sentence(false, 0, 0, 0, 0)).toBe("Now"));

  it("speaks of values that are outside before any alert is raised", () =>
    expect(sentence(true, 0, 0, 0, 0, 1)).toBe("One value is outside of the normal zone"));
});
