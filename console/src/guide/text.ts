import MarkdownIt from "markdown-it";

/** The files themselves, each fetched when it is read. */
const FILES = import.meta.glob<string>("../../../docs/guide/*.md", {
  query: "?raw",
  import: "default",
});
export const fileOf = (name: string) => FILES[`../../../docs/guide/${name}.md`];

/** Its pictures, by their file; each is fetched when it is seen. */
const PICTURES = import.meta.glob<string>("../../../docs/guide/pictures/*.png", {
  query: "?url",
  import: "default",
  eager: true,
});
export const pictureOf = (file: string) => PICTURES[`../../../docs/guide/pictures/${file}`];

const renderer = new MarkdownIt({ html: false });
// Between pages a file is named, so that the links lead somewhere in the repository too.
renderer.normalizeLink = (address) =>
  (address.startsWith("pictures/") && pictureOf(address.slice("pictures/".length))) ||
  address.replace(/^([a-z-]+)\.md$/, "/guide/$1");
const image = renderer.renderer.rules.image;
renderer.renderer.rules.image = (tokens, at, options, env, self) => {
  tokens[at]?.attrSet("loading", "lazy");
  return image ? image(tokens, at, options, env, self) : self.renderToken(tokens, at, options);
};

export function render(text: string): string {
  return renderer.render(text);
}

/** The title of a page, and what is below it. */
export const titleOf = (text: string) => /^# (.*)$/m.exec(text)?.[1] ?? "";

/** The names of all files. */
export const NAMES = Object.keys(FILES).map((path) => path.replace(/^.*\/|\.md$/g, ""));
