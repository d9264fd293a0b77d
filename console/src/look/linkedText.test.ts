import { mount } from "@vue/test-utils";
import { describe, expect, it } from "vitest";
import { h } from "vue";
import LinkedText from "./LinkedText.vue";

const shown = (text: string) => mount(() => h("p", h(LinkedText, { text })));
const links = (text: string) => shown(text).findAll("a");

describe("a text with web addresses", () => {
  it("links them, without the punctuation behind them, and keeps every letter", () => {
    const text = "Manual: https://a.example/m.pdf, drawing (http://b.example/x?y=1).";
    expect(links(text).map((link) => link.attributes("href"))).toEqual([
      "https://a.example/m.pdf",
      "http://b.example/x?y=1",
    ]);
    expect(shown(text).text()).toBe(text);
  });

  it("links nothing that runs in this page, and lets no markup in", () => {
    expect(links("javascript:alert(1) data:text/html,x ftp://a")).toHaveLength(0);
    const page = mount(LinkedText, {
      props: { text: '<img src=x onerror="a()"> https://a.example/"onmouseover="b()' },
    });
    expect(page.find("img").exists()).toBe(false);
    expect(page.find("a").attributes("href")).toBe("https://a.example/");
  });
});
