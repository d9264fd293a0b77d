import { describe, expect, it } from "vitest";
import { hexProblem } from "./hex";

describe("typed hex digits", () => {
  it.each([
    ["", ""],
    ["02 AB:54-0000000101", ""],
    ["02ab54000000010", "16 digits are needed, these are 15"],
    ["02ab54000000010g", "only the digits 0-9 and a-f"],
  ])("%s", (text, problem) => expect(hexProblem(text, 16)).toBe(problem));
});
