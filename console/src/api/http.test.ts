import { problem, serviceStandIn } from "@/testing";
import { afterEach, describe, expect, it, vi } from "vitest";
import { api, Refusal, whenSignedOut, words } from "./http";

afterEach(() => vi.unstubAllGlobals());

describe("the API", () => {
  it("sends JSON with the header that lets the cookie act", async () => {
    const calls = serviceStandIn({ "POST sites": { id: "s" } });
    expect(await api.post("sites", { name: "Creamery" })).toEqual({ id: "s" });
    expect(calls[0]?.body).toEqual({ name: "Creamery" });
    expect(calls[0]?.headers["X-Pasture-Console"]).toBe("1");
  });

  it("answers nothing where the service says nothing", async () => {
    serviceStandIn({ "DELETE links/1": undefined });
    expect(await api.remove("links/1")).toBeUndefined();
  });

  it("throws the service's own words and what to do", async () => {
    serviceStandIn({ "PUT rules/r": problem(409, "No limit set holds.", "Choose one first.") });
    const refusal = await api.put("rules/r", {}).catch((error) => error);
    expect(refusal).toBeInstanceOf(Refusal);
    expect((refusal as Refusal).status).toBe(409);
    expect(words(refusal)).toBe("No limit set holds. Choose one first.");
  });

  it("says that the service cannot be reached, not what the browser calls it", async () => {
    vi.stubGlobal("fetch", () => Promise.reject(new TypeError("Failed to fetch")));
    expect(words(await api.get("places").catch((error) => error))).toMatch(
      /^The service cannot be reached\. Check the network/,
    );
  });

  it("tells when a sign-in has ended, except while asking whether there is one", async () => {
    const ended = vi.fn();
    whenSignedOut(ended);
    serviceStandIn({
      "GET session": problem(401, "You are not signed in."),
      "GET places": problem(401, "You are not signed in."),
    });
    await api.get("session").catch(() => undefined);
    expect(ended).not.toHaveBeenCalled();
    await api.get("places").catch(() => undefined);
    expect(ended).toHaveBeenCalledOnce();
  });

  it("survives an answer that is no problem detail", async () => {
    serviceStandIn({ "GET places": new Response("<html>proxy error</html>", { status: 502 }) });
    expect(words(await api.get("places").catch((error) => error))).toBe("The service answered with status 502.");
  });

  it("has words for other errors too", () => expect(words(new Error("This is no JSON"))).toBe("This is no JSON"));
});
