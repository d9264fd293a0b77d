import { problem, serviceStandIn, StreamStandIn } from "@/testing";
import { effectScope } from "vue";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { closeLive, connected, onLive, openLive } from "./live";

beforeEach(() => {
  StreamStandIn.install();
  vi.useFakeTimers();
});
afterEach(() => {
  closeLive();
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

describe("the live stream", () => {
  it("is opened once, and is connected when it says hello", () => {
    openLive();
    openLive();
    expect(StreamStandIn.opened).toHaveLength(1);
    expect(connected.value).toBe(false);
    StreamStandIn.newest.tell("hello");
    expect(connected.value).toBe(true);
  });

  it("tells listeners until they go away", () => {
    const scope = effectScope();
    const heard: unknown[] = [];
    scope.run(() => onLive("reading", (data) => heard.push(data)));
    openLive();
    StreamStandIn.newest.tell("reading", { pointId: "p" });
    scope.stop();
    StreamStandIn.newest.tell("reading", { pointId: "q" });
    expect(heard).toEqual([{ pointId: "p" }]);
  });

  it("asks for raw frames only while somebody looks at them", () => {
    openLive();
    expect(StreamStandIn.newest.address).not.toContain("frame");
    const scope = effectScope();
    const resync = vi.fn();
    scope.run(() => {
      onLive("frame", () => undefined);
      onLive("resync", resync);
    });
    expect(StreamStandIn.newest.address).toContain("frame");
    StreamStandIn.newest.tell("hello");
    expect(resync, "frames that came before it was open are loaded").toHaveBeenCalledOnce();
    scope.stop();
    expect(StreamStandIn.newest.address).not.toContain("frame");
  });

  it("loads everything again after a break, because what happened meanwhile was missed", () => {
    const scope = effectScope();
    const resync = vi.fn();
    scope.run(() => onLive("resync", resync));
    openLive();
    StreamStandIn.newest.tell("hello");
    expect(resync).toHaveBeenCalledTimes(1);
    StreamStandIn.newest.breakOff(false);
    expect(connected.value).toBe(false);
    StreamStandIn.newest.tell("hello");
    expect(resync).toHaveBeenCalledTimes(2);
    scope.stop();
  });

  it("opens again by itself when the service was away", async () => {
    serviceStandIn({ "GET session": { person: {} } });
    openLive();
    StreamStandIn.newest.breakOff(true);
    await vi.advanceTimersByTimeAsync(3_100);
    expect(StreamStandIn.opened).toHaveLength(2);
  });

  it("does not try for ever when the sign-in has ended", async () => {
    const calls = serviceStandIn({ "GET session": problem(401, "You are not signed in.") });
    openLive();
    StreamStandIn.newest.breakOff(true);
    await vi.advanceTimersByTimeAsync(30_000);
    expect(StreamStandIn.opened).toHaveLength(1);
    expect(calls).toHaveLength(1);
  });
});
