import { describe, expect, it } from "vitest";
import type { Rule } from "@/api/types";
import { ruleWords } from "./states";

const rule = (part: Partial<Rule>) =>
  ({ hold: { kind: "time", seconds: 0 }, measure: { kind: "last" }, also: [], atLeast: null, ...part }) as Rule;

describe("a rule in words", () => {
  it.each<[Rule, string]>([
    [
      rule({ condition: { kind: "in-zone", atLeast: "warning" }, hold: { kind: "reports", count: 3 } }),
      "in a zone that is warning or worse, in 3 reports in a row",
    ],
    [rule({ condition: { kind: "above", limit: 8 }, hold: { kind: "time", seconds: 600 } }), "above 8 °C, for 10 min"],
    [rule({ condition: { kind: "outside", low: 2, high: 8 } }), "outside 2 to 8 °C, at once"],
    [rule({ condition: { kind: "silent", seconds: 5400 } }), "silent for 90 min"],
    [
      rule({
        condition: { kind: "above", limit: 0.5 },
        active: { days: ["MONDAY", "FRIDAY"], from: "08:00:00", until: "17:00:00", outside: true },
      }),
      "above 0.5 °C, at once; except 08:00 to 17:00 on Mon, Fri",
    ],
    [
      rule({ condition: { kind: "off-baseline", percentOfLimit: 25, by: null } }),
      "changed from the baseline by more than 25 % of the limit, at once",
    ],
    [
      rule({ condition: { kind: "above", limit: 3 }, measure: { kind: "rate", seconds: 1800 } }),
      "rate of change over 30 min above 3 °C/h, at once",
    ],
    [
      rule({
        condition: { kind: "above", limit: 8 },
        measure: { kind: "mean", seconds: 28800 },
        also: [
          {
            target: { kind: "here", quantity: "switch" },
            measure: { kind: "last" },
            condition: { kind: "below", limit: 0.5 },
            deadBand: 0,
          },
        ],
      }),
      "mean over 8 h above 8 °C while another value below 0.5, at once",
    ],
  ])("%#", (one, words) => expect(ruleWords(one, "°C")).toBe(words));
});
