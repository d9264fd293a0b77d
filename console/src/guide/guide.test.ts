import { describe, expect, it } from "vitest";
import rooms from "../rooms.ts?raw";
import { helpFor, PAGES } from "./pages";
import { KINDS } from "@/dashboards/panels/kinds";
import { fileOf, NAMES, pictureOf, render, titleOf } from "./text";

const read = async (name: string) => (await fileOf(name)?.()) ?? "";

describe("guide", () => {
  it("has a file for each page, and a page for each file", () => {
    expect([...NAMES].sort()).toEqual(PAGES.map((page) => page.name).sort());
  });

  it.each(PAGES)("$name begins with its title, and has no dead link", async ({ name, title }) => {
    const text = await read(name);
    expect(titleOf(text)).toBe(title);
    for (const [, link] of render(text).matchAll(/href="([^"]*)"/g)) {
      const known = PAGES.some((page) => link === "/guide/" + page.name) || link === "/api/openapi";
      expect(known, link).toBe(true);
    }
    for (const [, picture] of text.matchAll(/!\[[^\]]+\]\(pictures\/([^)]*)\)/g)) {
      expect(pictureOf(picture ?? ""), picture).toBeTruthy();
    }
  });

  it("shows a picture of each kind of panel", async () => {
    const text = await read("panels");
    Object.entries(KINDS).forEach(([kind, { name }]) => {
      expect(text).toContain(`## ${name}\n`);
      expect(text).toContain(`(pictures/${kind}.png)`);
    });
    expect(render("![A dial](pictures/dial.png)")).toMatch(/<img src="[^"]*dial[^"]*" alt="A dial" loading="lazy">/);
  });

  it("helps with the room that is open", () => {
    expect(helpFor("/alerts/01abc")).toBe("/guide/rules");
    expect(helpFor("/records")).toBe("/guide/backup");
    expect(helpFor("/records/compare")).toBe("/guide/dashboards");
    expect(helpFor("/nowhere")).toBe("/guide/first-day");
  });

  it("names only rooms that there are", () => {
    PAGES.flatMap((page) => page.rooms).forEach((room) => expect(rooms).toContain(`"${room}`));
  });
});
