import type { Panel } from "@/api/types";
import { apart } from "./layout";

/**
 * Two people's versions of a dashboard as one, panel by panel, from what both began with. What only one of them touched is
 * as they left it; of a panel that both changed, mine is kept; what one removed and the other changed stays.
 */
export function merged(base: Panel[], mine: Panel[], theirs: Panel[]): { panels: Panel[]; both: string[] } {
  const [was, here, there] = [base, mine, theirs].map((panels) => new Map(panels.map((panel) => [panel.id, panel])));
  const changed = (id: string, now: Panel | undefined) => !same(was?.get(id), now);
  const ids = [...new Set([...mine, ...theirs].map((panel) => panel.id))];
  const both: string[] = [];
  const panels = ids.flatMap((id) => {
    const [own, other] = [here?.get(id), there?.get(id)];
    if (changed(id, own) && changed(id, other) && !same(own, other)) {
      both.push((own ?? other)?.title ?? "");
      return own ?? other ?? [];
    }
    return (changed(id, own) ? own : other) ?? [];
  });
  return { panels: apart(panels), both };
}

function same(one: Panel | undefined, other: Panel | undefined): boolean {
  return JSON.stringify(sorted(one)) === JSON.stringify(sorted(other));
}

/** With keys in one order, so that how a panel was written does not matter. */
function sorted(value: unknown): unknown {
  if (value === null || typeof value !== "object" || Array.isArray(value)) {
    return value;
  }
  return Object.fromEntries(
    Object.entries(value)
      .filter(([, part]) => part !== null && part !== undefined)
      .sort(([a], [b]) => a.localeCompare(b))
      .map(([key, part]) => [key, sorted(part)]),
  );
}
