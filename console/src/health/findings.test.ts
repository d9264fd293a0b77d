import { expect, test } from "vitest";
import { findingWords, type Finding } from "./findings";

function finding(kind: Finding["kind"], times: number, longestSeconds = 0): Finding {
  return { kind, times, longestSeconds, from: "2026-03-01T08:00:00Z", until: "2026-03-01T09:00:00Z" };
}

test("findings are said in a few words", () => {
  expect(findingWords(finding("gap", 1, 50_400))).toBe("gap of 14 h");
  expect(findingWords(finding("gap", 3, 260_000))).toBe("3 gaps, the longest 3 days");
  expect(findingWords(finding("stuck", 1, 7_200))).toBe("value stuck for 2 h");
  expect(findingWords(finding("impossible", 1))).toBe("1 impossible value");
  expect(findingWords(finding("spike", 2))).toBe("2 spikes");
  expect(findingWords(finding("jump", 1))).toBe("1 jump");
});
