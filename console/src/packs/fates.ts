import type { PackPart } from "@/api/types";

/** What happens to a part of a pack, in words: before it is imported, and after. */
const WORDS: Record<PackPart["fate"], [planned: string, done: string]> = {
  new: ["will be added", "added"],
  updated: ["will be updated", "updated"],
  same: ["already as in the pack", "already as in the pack"],
  "changed-here": ["changed here, stays", "changed here, stays"],
  "removed-here": ["removed here, stays removed", "removed here, stays removed"],
  "not-in-pack": ["no longer in the pack, stays", "no longer in the pack, stays"],
  "left-out": ["left out", "left out"],
  impossible: ["not possible", "not possible"],
};

export function fateWords(part: PackPart, done = false): string {
  return WORDS[part.fate][done ? 1 : 0];
}

const KINDS: Record<string, string> = {
  rule: "Rule",
  dashboard: "Dashboard",
  "limit-set": "Limit set",
  "device-model": "Device model",
  limits: "Assignment",
  "point-limits": "Assignment",
};

/** What kind of thing a part is: "rule/too-warm" is a rule. */
export function kindWords(key: string): string {
  return KINDS[key.split("/")[0] ?? ""] ?? "";
}
