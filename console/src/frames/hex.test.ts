import type { ByteLayout } from "@/api/types";
import { layoutText } from "@/models/layoutText";
import { describe, expect, it } from "vitest";
import { hexProblem } from "./hex";

describe("a layout as text", () => {
  it("has a field on a line, leaves out what says nothing, and reads back", () => {
    const layout: ByteLayout = {
      messages: [
        { port: 2, fields: [{ channel: "t", at: 0, type: "i16", scale: 0.1, bits: null }] },
        { port: null, fields: [] },
      ],
    };
    const text = layoutText(layout);
    expect(text).toContain('\n      {"channel":"t","at":0,"type":"i16","scale":0.1}\n');
    expect(JSON.parse(text)).toEqual({
      messages: [{ port: 2, fields: [{ channel: "t", at: 0, type: "i16", scale: 0.1 }] }, { fields: [] }],
    });
  });
});

describe("typed hex digits", () => {
  it.each([
    ["", ""],
    ["02 AB:54-0000000101", ""],
    ["02ab54000000010", "16 digits are needed, these are 15"],
    ["02ab54000000010g", "only the digits 0-9 and a-f"],
  ])("%s", (text, problem) => expect(hexProblem(text, 16)).toBe(problem));
});
