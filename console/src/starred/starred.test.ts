import type { Starred } from "@/api/types";
import { usePlaces } from "@/places/places";
import StartPageSheet from "@/settings/StartPageSheet.vue";
import { mountIn, serviceStandIn } from "@/testing";
import { createPinia, setActivePinia } from "pinia";
import { beforeEach, describe, expect, it } from "vitest";
import StarButton from "./StarButton.vue";
import StarredLinks from "./StarredLinks.vue";
import { isStarred, starredPages, startAddress, startWith, useStarred } from "./starred";

const PUMP = { kind: "place", of: "pump" } as const;
const BOARD = { kind: "dashboard", of: "glance" } as const;

/** A service that keeps what it is given. */
function service(begin: Starred) {
  return serviceStandIn({
    "PUT session/starred": ({ body }: { body: Starred }) => body,
    "GET session/starred": begin,
    "GET dashboards/glance": { name: "Creamery at a glance" },
  });
}

beforeEach(() => {
  setActivePinia(createPinia());
  usePlaces().places = [{ id: "pump", name: "Whey pump", kind: "asset", parentId: null }] as never;
});

describe("starred pages", () => {
  it("are kept by the service and listed as they are called now; what is gone is left out", async () => {
    service({ pages: [], start: null });
    await useStarred({
      pages: [PUMP, BOARD, { kind: "place", of: "gone" }, { kind: "dashboard", of: "no" }],
      start: null,
    });
    expect(starredPages.value.map((one) => [one.name, one.to])).toEqual([
      ["Whey pump", "/places/pump"],
      ["Creamery at a glance", "/dashboards/glance"],
    ]);
    expect((await mountIn(StarredLinks)).text()).toContain("Whey pump");
  });

  it("are starred and unstarred by a press, and the others stay", async () => {
    const calls = service({ pages: [], start: null });
    await useStarred({ pages: [BOARD], start: BOARD });
    const button = (await mountIn(StarButton, { page: PUMP })).find("button");
    expect(button.attributes("aria-pressed")).toBe("false");
    await button.trigger("click");
    await expect.poll(() => isStarred(PUMP)).toBe(true);
    expect(calls.find((call) => call.method === "PUT")?.body).toEqual({ pages: [BOARD, PUMP], start: BOARD });
    expect(button.attributes("aria-label")).toBe("Remove star");
    await button.trigger("click");
    await expect.poll(() => isStarred(PUMP)).toBe(false);
    expect(isStarred(BOARD)).toBe(true);
  });

  it("can be what opens first, which is Now until somebody chooses", async () => {
    service({ pages: [], start: null });
    await useStarred(undefined);
    expect(startAddress()).toBe("/now");
    await useStarred({ pages: [PUMP], start: null });
    expect((await mountIn(StartPageSheet)).text()).toContain("Whey pump");
    await startWith(PUMP);
    expect(startAddress()).toBe("/places/pump");
  });
});
