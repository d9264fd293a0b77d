import { expect, test } from "vitest";
import { parted, recipientWords } from "./recipients";

test("recipients are read however they are separated, and numbers keep their spaces", () => {
  expect(parted("a@b.example; c@d.example  e@f.example,+44 7700 900123")).toEqual([
    "a@b.example",
    "c@d.example",
    "e@f.example",
    "+44 7700 900123",
  ]);
  expect(parted(" , ")).toEqual([]);
});

test("a person is shown by name", () => {
  expect(recipientWords("person:anna")).toBe("anna");
  expect(recipientWords("+447700900123")).toBe("+447700900123");
});
