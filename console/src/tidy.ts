import { now } from "@/look/clock";
import { disableAutoUnmount, enableAutoUnmount } from "@vue/test-utils";
import { afterEach, beforeEach, vi } from "vitest";

/** What a test shows goes with it: test files share one process, and a page that stays would go on loading. */
disableAutoUnmount();
enableAutoUnmount(afterEach);
beforeEach(() => {
  // The page's clock may have stood still with the timers of a test before.
  now.value = Date.now();
});
afterEach(() => {
  document.body.innerHTML = "";
  vi.useRealTimers();
  vi.unstubAllGlobals();
});
