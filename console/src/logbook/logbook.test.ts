import type { LogEntry } from "@/api/types";
import { expect, it } from "vitest";
import { marksOf, threads } from "./logbook";

function entry(id: number, at: string, answers: number | null = null): LogEntry {
  return {
    id,
    at,
    answers,
    placeId: "p",
    path: ["Creamery"],
    pointId: null,
    pointName: "",
    text: "entry " + id,
    person: "anna",
    writtenAt: at,
    changedAt: null,
    own: false,
  };
}

const MORNING = "2026-03-01T08:00:00Z";
const NOON = "2026-03-01T12:00:00Z";

it("puts answers under what they answer, in the order in which they were written", () => {
  const found = threads([entry(4, NOON, 2), entry(3, NOON), entry(2, MORNING, 1), entry(1, MORNING)]);
  expect(found.map((thread) => thread.entry.id)).toEqual([3, 1]);
  expect(found[1]?.answers.map((one) => one.id)).toEqual([2, 4]);
});

it("shows an answer by itself where what it answers is not in the list", () => {
  expect(threads([entry(9, NOON, 1)]).map((thread) => thread.entry.id)).toEqual([9]);
});

it("numbers the marks in a chart from the oldest in sight, one for each conversation", () => {
  const entries = [entry(3, NOON), entry(2, MORNING, 1), entry(1, MORNING)];
  expect(marksOf(entries, Date.parse(MORNING)).map((mark) => [mark.id, mark.label])).toEqual([
    [1, "1"],
    [3, "2"],
  ]);
  expect(marksOf(entries, Date.parse(MORNING) + 1).map((mark) => [mark.id, mark.label])).toEqual([[3, "1"]]);
});
