import { api } from "@/api/http";
import { onLive } from "@/api/live";
import type { LogEntry } from "@/api/types";
import type { ChartMark } from "@/chart/lineOption";
import type { TimeRange } from "@/chart/timeRange";
import { useLoad } from "@/look/load";
import { watch } from "vue";

/** The newest entries of a place or a point, kept current; the address says which. */
export function useLogbook(address: () => string) {
  const loaded = useLoad(() => api.get<LogEntry[]>("logbook?" + address()));
  watch(address, loaded.load);
  onLive("logbook", loaded.load);
  onLive("resync", loaded.load);
  return loaded;
}

/** For a time that is looked at, the newest entries are those that are about it or what was before. */
export function notesUntil(range: TimeRange | undefined): string {
  return range ? "&until=" + new Date(range.until).toISOString() : "";
}

/** An entry with its answers, each after what it answers. */
export interface Thread {
  entry: LogEntry;
  answers: LogEntry[];
}

/** Entries as conversations, the newest first by the moment that the first of each is about; answers in order. */
export function threads(entries: LogEntry[]): Thread[] {
  const byId = new Map(entries.map((entry) => [entry.id, entry]));
  const first = (entry: LogEntry): LogEntry => {
    // An answer is younger than what it answers, so this ends.
    const above = entry.answers === null ? undefined : byId.get(entry.answers);
    return above ? first(above) : entry;
  };
  const found = new Map<number, Thread>();
  entries.filter((entry) => first(entry) === entry).forEach((entry) => found.set(entry.id, { entry, answers: [] }));
  [...entries]
    .sort((a, b) => a.id - b.id)
    .filter((entry) => first(entry) !== entry)
    .forEach((entry) => found.get(first(entry).id)?.answers.push(entry));
  return [...found.values()];
}

/** Where a chart has a mark for each conversation: numbered from the oldest that is in sight. */
export function marksOf(entries: LogEntry[], from: number): ChartMark[] {
  return threads(entries)
    .map(({ entry }) => ({ entry, at: Date.parse(entry.at) }))
    .filter(({ at }) => at >= from)
    .sort((a, b) => a.at - b.at)
    .map(({ entry, at }, i) => ({ id: entry.id, at, label: String(i + 1) }));
}
