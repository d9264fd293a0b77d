import type { LimitQuestion, LimitSet } from "@/api/types";
import { isSame } from "./averaging";

type Answer = LimitQuestion["answers"][number];

/** How far somebody has come: what they answered, what is asked next or what fits, and why. */
export interface Way {
  taken: { question: LimitQuestion; answer: Answer }[];
  next: LimitQuestion | undefined;
  /** Ids of the limit sets that fit; undefined while there is a further question. */
  sets: string[] | undefined;
  reasons: string[];
}

/** Follows answers through the questions; an answer that there is not ends the way before it. */
export function answered(questions: LimitQuestion[], answers: string[]): Way {
  const byId = new Map(questions.map((question) => [question.id, question]));
  const way: Way = { taken: [], next: questions[0], sets: undefined, reasons: [] };
  for (const id of answers) {
    const question = way.next;
    const answer = question?.answers.find((one) => one.id === id);
    if (!question || !answer) {
      break;
    }
    way.taken.push({ question, answer });
    if (answer.because) {
      way.reasons.push(answer.because);
    }
    way.next = answer.then ? byId.get(answer.then) : undefined;
    way.sets = answer.then ? undefined : answer.sets;
  }
  return way;
}

/** The sets of an asset with others: one takes the place of what there is for the same quantity, averaged alike. */
export function withSets(ids: string[], added: LimitSet[], all: Map<string, LimitSet>): string[] {
  const kept = ids.filter((id) => {
    const one = all.get(id);
    return !one || !added.some((set) => set.quantity === one.quantity && isSame(set.averaging, one.averaging));
  });
  return [...kept, ...added.map((set) => set.id)];
}
