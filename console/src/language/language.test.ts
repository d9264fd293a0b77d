import { parse } from "@vue/compiler-sfc";
import ts from "typescript";
import { describe, expect, it } from "vitest";
import de from "./de.json";
import fr from "./fr.json";
import phrases from "./phrases.json";
import { ENGLISH, inEnglish, said, t } from "./index";
import { translated } from "./translated";

/** A node of a template, as the compiler of components gives it. */
interface Node {
  type: number;
  tag?: string;
  content?: string | { content: string };
  children?: Node[];
  props?: { type: number; name: string; value?: { content: string }; exp?: { content: string } }[];
}
const TEXT = 2;
const BRACES = 5;
const ATTRIBUTE = 6;

/** Attributes that people read or hear. */
const READ = /^(title|alt|says|action|content|heading|always|data-name)$|(^|-)(label|placeholder|text)$/;
/** What is no text of any language: names of formats and units, and what is typed as it stands. */
const NO_TEXT =
  /^(Authorization|CSV|EUI|GeoJSON|Hz|JSON|Java|KML|MHz|MQTT|Open Pasture|RMS|SenML|signing-key)$|^\S*[.:/=@{]\S*$|^\S*\/\S* |, ?\w+ \w+(,|$)|^dev addr|^noopener|(dBm|dB|Hz) …|^report …|\/ span/;
const words = (text: string) => /[A-Za-z]{2}/.test(text) && !NO_TEXT.test(text.trim());

interface Found {
  /** Texts that are given to {@link t}, in English. */
  texts: string[];
  /** Texts that are not. */
  bare: string[];
}

function inCode(code: string, found: Found) {
  const visit = (node: ts.Node) => {
    if (ts.isCallExpression(node) && node.expression.getText() === "t") {
      const [text] = node.arguments;
      if (text && ts.isStringLiteral(text)) {
        found.texts.push(text.text);
      } else {
        found.bare.push("not a text: " + node.getText());
      }
      node.arguments.slice(1).forEach(visit);
    } else if (ts.isCallExpression(node) && node.expression.getText() === "Symbol") {
      return; // What it is called is for those who look for faults.
    } else if (
      ts.isStringLiteralLike(node) &&
      words(node.text) &&
      sentence(node.text) &&
      !ts.isLiteralTypeNode(node.parent)
    ) {
      found.bare.push(node.text);
    } else if (ts.isTemplateExpression(node)) {
      const text = [node.head.text, ...node.templateSpans.map((part) => part.literal.text)].join("…");
      if (/[A-Za-z]{2,} …|… [a-z]{2,}/.test(text) && !/[<>#=?&(]/.test(text) && words(text)) {
        found.bare.push(text);
      }
      ts.forEachChild(node, visit);
    } else if (!ts.isImportDeclaration(node) && !ts.isTypeNode(node)) {
      ts.forEachChild(node, visit);
    }
  };
  visit(ts.createSourceFile("code.ts", code, ts.ScriptTarget.Latest, true));
}

/** Whether a string is for people: it begins like a sentence, or has three words at least. */
function sentence(text: string) {
  return /^[A-Z][a-z]+,? [A-Za-z]|[a-z] [a-z]+ [a-z]/.test(text);
}

function inTemplate(node: Node, found: Found) {
  if (node.type === TEXT && words(String(node.content))) {
    found.bare.push(String(node.content).trim());
  }
  if (node.type === BRACES) {
    inCode(`(${(node.content as { content: string }).content})`, found);
  }
  for (const prop of node.props ?? []) {
    if (prop.type === ATTRIBUTE && READ.test(prop.name) && words(prop.value?.content ?? "")) {
      found.bare.push(`${prop.name}: ${prop.value?.content}`);
    } else if (prop.exp && prop.name !== "for" && prop.name !== "slot") {
      inCode(`(${prop.exp.content})`, found);
    }
  }
  if (!/^(code|pre|kbd)$/.test(node.tag ?? "")) {
    node.children?.forEach((child) => inTemplate(child, found));
  }
}

function textsOf(file: string, code: string): Found {
  const found: Found = { texts: [], bare: [] };
  if (file.endsWith(".vue")) {
    const { descriptor } = parse(code);
    inCode(descriptor.scriptSetup?.content ?? "", found);
    if (descriptor.template?.ast) {
      inTemplate(descriptor.template.ast as unknown as Node, found);
    }
  } else {
    inCode(code, found);
  }
  return found;
}

const files = import.meta.glob<string>("../**/*.{vue,ts}", { query: "?raw", import: "default", eager: true });
const all = Object.entries(files)
  .filter(
    ([file]) => !/\.test\.ts$|\/(testing|tidy)\.ts$|\/api\/schema\.ts$|^\.\/index\.ts$|\/models\/example/.test(file),
  )
  .map(([file, code]) => ({ file, ...textsOf(file, code) }));
const english = new Set([...all.flatMap((one) => one.texts), ...phrases]);

/** The {names} of a text, each once. */
const names = (text: string) => [...new Set(text.match(/\{\w+\}/g) ?? [])].sort();

describe("the texts of the console", () => {
  it("stand in no code: each of them can be said in another language", () => {
    expect(all.filter((one) => one.bare.length).map((one) => ({ [one.file]: one.bare }))).toEqual([]);
  });

  it.each([
    ["German", de],
    ["French", fr],
  ])("are complete in %s, with the same values and forms, and nothing is left over", (_, catalogue) => {
    const known = catalogue as Record<string, string>;
    expect([...english].filter((text) => !known[text]?.trim())).toEqual([]);
    expect(Object.keys(known).filter((text) => !english.has(text))).toEqual([]);
    for (const [text, translated] of Object.entries(known)) {
      expect(names(translated), text).toEqual(names(text));
      expect(translated.split(" | ").length, text).toBe(text.split(" | ").length);
    }
  });

  it("are written in English as the catalogues would write it", () => {
    const byCatalogue = translated("en", ENGLISH);
    for (const text of english) {
      const values = Object.fromEntries(names(text).map((name) => [name.slice(1, -1), `<${name}> | x`]));
      for (const n of text.includes(" | ") ? [0, 1, 2, 1.5] : [undefined]) {
        expect(inEnglish(text, { ...values, n: String(n) }, n), text).toBe(
          byCatalogue(text, { ...values, n: String(n) }, n),
        );
      }
    }
  });

  it.each([
    ["de", de, "0 Messpunkte", "1 Messpunkt", "2 Messpunkte"],
    ["fr", fr, "0 point", "1 point", "2 points"],
  ])("have the forms of numbers that %s asks for", (language, catalogue, none, one, two) => {
    const write = translated(language, catalogue);
    const points = (n: number) => write("{n} point | {n} points", { n: String(n) }, n);
    expect([points(0), points(1), points(2)]).toEqual([none, one, two]);
  });

  it("are English where nothing else was chosen, with values in their places and forms by number", () => {
    expect(t("{count} readings", { count: "1 000" })).toBe("1 000 readings");
    expect(t("{n} point | {n} points", { n: 1 })).toBe("1 point");
    expect(t("{n} point | {n} points", { n: 0 })).toBe("0 points");
    expect(Object.keys(ENGLISH).filter((text) => !english.has(text))).toEqual([]);
    expect(t("over (of an alert)")).toBe("over");
    expect(said("critical")).toBe("critical");
    expect(said("a name {with} signs | of its own")).toBe("a name {with} signs | of its own");
  });
});
