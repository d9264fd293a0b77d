import { t } from "@/language";
import type { PackPart } from "@/api/types";

/** What happens to a part of a pack, in words: before it is imported, and after. */
const WORDS: Record<PackPart["fate"], [planned: string, done: string]> = {
  new: [t("will be added"), t("added")],
  updated: [t("will be updated"), t("updated")],
  same: [t("already as in the pack"), t("already as in the pack")],
  "changed-here": [t("changed here, stays"), t("changed here, stays")],
  "removed-here": [t("removed here, stays removed"), t("removed here, stays removed")],
  "not-in-pack": [t("no longer in the pack, stays"), t("no longer in the pack, stays")],
  "left-out": [t("left out"), t("left out")],
  impossible: [t("not possible"), t("not possible")],
};

export function fateWords(part: PackPart, done = false): string {
  return WORDS[part.fate][done ? 1 : 0];
}

const KINDS: Record<string, string> = {
  rule: t("Rule"),
  dashboard: t("Dashboard"),
  "limit-set": t("Limit set"),
  "device-model": t("Device model"),
  limits: t("Assignment"),
  "point-limits": t("Assignment"),
};

/** What kind of thing a part is: "rule/too-warm" is a rule. */
export function kindWords(key: string): string {
  return KINDS[key.split("/")[0] ?? ""] ?? "";
}
