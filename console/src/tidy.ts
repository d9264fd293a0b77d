import { disableAutoUnmount, enableAutoUnmount } from "@vue/test-utils";
import { afterEach, vi } from "vitest";

/** What a test shows goes with it: test files share one process, and a page that stays would go on loading. */
disableAutoUnmount();
enableAutoUnmount(afterEach);
afterEach(() => {
  document.body.innerHTML = "";
  vi.useRealTimers();
  vi.unstubAllGlobals();
});
