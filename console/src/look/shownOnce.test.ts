import { button, mountIn } from "@/testing";
import { flushPromises } from "@vue/test-utils";
import { afterEach, describe, expect, it, vi } from "vitest";
import ShownOnce from "./ShownOnce.vue";

const say = vi.hoisted(() => vi.fn());
vi.mock("./act", () => ({ say }));

afterEach(() => {
  document.body.innerHTML = "";
  say.mockReset();
  vi.unstubAllGlobals();
});

async function copied(clipboard: unknown, command?: boolean): Promise<string> {
  vi.stubGlobal("navigator", { clipboard });
  document.execCommand = command === undefined ? (undefined as never) : () => command;
  const shown = await mountIn(ShownOnce, { label: "Copy it now", value: "http://pasture/shared/token" });
  await button(shown, "Copy").trigger("click");
  await flushPromises();
  return say.mock.calls[0]?.[0] as string;
}

describe("a link that is shown once", () => {
  it("is copied by the clipboard", async () => {
    const writeText = vi.fn(() => Promise.resolve());
    expect(await copied({ writeText })).toBe("Copied.");
    expect(writeText).toHaveBeenCalledWith("http://pasture/shared/token");
  });

  it("is copied the old way on plain http, where there is no clipboard", async () =>
    expect(await copied(undefined, true)).toBe("Copied."));

  it("does not claim to be copied where nothing can copy it", async () =>
    expect(await copied(undefined)).toContain("copy it yourself"));
});
