import { t } from "@/language";
import type { PointField, PointRow, PointRowView } from "@/api/types";

/** The columns of the table of points, in their order, with what people call them. */
export const COLUMNS: { field: PointField; title: string; rem: number }[] = [
  { field: "name", title: t("Name"), rem: 12 },
  { field: "place", title: t("Place"), rem: 21 },
  { field: "limits", title: t("Own limits"), rem: 9 },
  { field: "direction", title: t("Direction"), rem: 6.5 },
  { field: "tags", title: t("Tags"), rem: 10 },
  { field: "decimals", title: t("Decimals"), rem: 5 },
  { field: "note", title: t("Note"), rem: 12 },
  { field: "released", title: t("Released"), rem: 5 },
];
export const TITLES = Object.fromEntries(COLUMNS.map((one) => [one.field, one.title])) as Record<PointField, string>;

export type Cells = Partial<Record<PointField, string>>;
/** What somebody has typed, by the id of the point; only what differs from what is registered. */
export type Draft = Map<string, Cells>;

/** A draft in which a cell is another; one that is as it was is in it no more. */
export function typed(draft: Draft, row: PointRow, field: PointField, text: string): Draft {
  const next = new Map(draft);
  const cells = { ...next.get(row.id), [field]: text };
  if (text === (row.cells?.[field] ?? "")) {
    delete cells[field];
  }
  if (Object.keys(cells).length) {
    next.set(row.id, cells);
  } else {
    next.delete(row.id);
  }
  return next;
}

/** What a cell says, by the draft or as it is registered. */
export function cellOf(draft: Draft, row: PointRow, field: PointField): string {
  return draft.get(row.id)?.[field] ?? row.cells?.[field] ?? "";
}

/** Rows in which some word is found. */
export function found(rows: PointRow[], draft: Draft, words: string): PointRow[] {
  const wanted = words.trim().toLowerCase();
  return wanted
    ? rows.filter((row) => COLUMNS.some(({ field }) => cellOf(draft, row, field).toLowerCase().includes(wanted)))
    : rows;
}

/** One column of many rows: set to a text, or with a part of it put in place of another. */
export function filled(draft: Draft, rows: PointRow[], field: PointField, part: string, text: string): Draft {
  return rows.reduce((next, row) => {
    const before = cellOf(next, row, field);
    return typed(next, row, field, part ? before.replaceAll(part, text) : text);
  }, draft);
}

/** As the service takes it. */
export function wished(draft: Draft): { rows: PointRow[] } {
  return { rows: [...draft].map(([id, cells]) => ({ id, cells }) as PointRow) };
}

/** What takes a change back. */
export function undoing(changed: PointRowView[]): { rows: PointRow[] } {
  return {
    rows: changed
      .filter((row) => row.changed.length)
      .map((row) => ({
        id: row.id,
        cells: Object.fromEntries(row.changed.map((cell) => [cell.field, cell.before])) as PointRow["cells"],
      })),
  };
}
