import { mountIn, problem, serviceStandIn, type Call } from "@/testing";
import { flushPromises } from "@vue/test-utils";
import { createPinia, setActivePinia } from "pinia";
import { beforeEach, describe, expect, it, vi } from "vitest";
import { usePlaces } from "@/places/places";
import { alertsFor, hitOf, pagesFor } from "./found";
import { lately, remember } from "./recent";
import SearchDialog from "./SearchDialog.vue";

const PUMP = { kind: "asset", id: "a1", name: "Whey pump", where: "Creamery" };
const POINT = { kind: "point", id: "p1", name: "Pump axial", where: "Creamery, Whey pump" };

async function typed(text: string, answers: Record<string, unknown>) {
  const calls: Call[] = serviceStandIn(answers);
  vi.useFakeTimers();
  const dialog = await mountIn(SearchDialog);
  await dialog.find("input").setValue(text);
  await vi.advanceTimersByTimeAsync(200);
  await flushPromises();
  return { dialog, calls };
}

beforeEach(() => setActivePinia(createPinia()));

describe("the search", () => {
  it("lists what the service finds, then pages, and opens what is chosen by keyboard", async () => {
    const { dialog, calls } = await typed("pump", { "GET search?text=pump": [PUMP, POINT] });
    expect(calls).toHaveLength(1);
    expect(dialog.findAll("li").map((line) => line.find(".title").text())).toEqual([
      "Whey pump",
      "Pump axial",
      "“pump” in the alert history",
    ]);
    const input = dialog.find("input");
    await input.trigger("keydown", { key: "ArrowDown" });
    expect(dialog.find("li.at .title").text()).toBe("Pump axial");
    await input.trigger("keydown", { key: "ArrowDown" });
    await input.trigger("keydown", { key: "ArrowDown" });
    expect(dialog.find("li.at .title").text(), "the last one stays").toContain("alert history");
    await input.trigger("keydown", { key: "Enter" });
    await flushPromises();
    expect(dialog.emitted("close") ?? dialog.findComponent(SearchDialog).emitted("close")).toBeTruthy();
  });

  it("says when nothing is found, and when it could not look", async () => {
    const nothing = await typed("zzz", { "GET search?text=zzz": [] });
    expect(nothing.dialog.text()).toContain("Nothing found for “zzz”");
    const failed = await typed("zzz", { "GET search?text=zzz": problem(503, "The service is busy.") });
    expect(failed.dialog.text()).toContain("The service is busy.");
    expect(failed.dialog.text()).not.toContain("Nothing found");
  });

  it("finds pages of the console by what they are about", () => {
    expect(pagesFor("second fac").map((one) => one.to)).toEqual(["/settings/account"]);
    expect(pagesFor("back").map((one) => one.to)).toEqual(["/records"]);
    expect(pagesFor(" ")).toEqual([]);
  });

  it("leads each kind of thing to its page", () => {
    expect(hitOf(PUMP).to).toBe("/places/a1");
    expect(hitOf({ kind: "device", id: "d", name: "", where: "" }).to).toBe("/fleet/devices/d");
    expect(hitOf({ kind: "limit-set", id: "l", name: "", where: "" }).to).toBe("/limits#l");
  });

  it("finds open alerts by what, where and how bad, and leads to those that are over", () => {
    const alert = {
      id: "x",
      summary: "Milk tank: 9 °C, above 6 °C",
      path: ["Creamery", "Milk tank"],
      severity: "critical",
    };
    const hits = (text: string) => alertsFor(text, [alert as never]).map((one) => one.to);
    expect(hits("milk crit")).toEqual(["/alerts/x", "/alerts?tab=history&text=milk%20crit"]);
    expect(hits("pump")).toEqual(["/alerts?tab=history&text=pump"]);
    expect(hits(" ")).toEqual([]);
  });

  it("offers what was opened lately before anything is typed", async () => {
    localStorage.clear();
    ["/places/a", "/places/gone", "/points/p", "/places/a", "/alerts/x"].forEach(remember);
    serviceStandIn({ "GET places": [], "GET limits": [] });
    const dialog = await mountIn(SearchDialog);
    usePlaces().places = [{ id: "a", name: "Whey pump", parentId: null }] as never;
    expect(lately().map((one) => one.title)).toEqual(["Whey pump"]);
    expect(dialog.text()).not.toContain("Nothing found");
    localStorage.setItem("opened", "{");
    expect(lately()).toEqual([]);
  });
});
