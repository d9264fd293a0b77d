import MarkdownIt from "markdown-it";

/**
 * Markdown as HTML that can do no harm: HTML in it is shown as text, pictures are left out since they would tell
 * somebody else who looks at the page, and links lead only to web pages, mail and telephones, without saying from where.
 */
const renderer = new MarkdownIt({ html: false, linkify: false, breaks: true }).disable(["image"]);
renderer.validateLink = (address) => /^(https?:|mailto:|tel:|\/(?!\/))/i.test(address.trim());
renderer.renderer.rules.link_open = (tokens, index, options, _env, self) => {
  tokens[index]?.attrSet("rel", "noopener noreferrer nofollow");
  tokens[index]?.attrSet("target", "_blank");
  return self.renderToken(tokens, index, options);
};

export function markdown(text: string): string {
  return renderer.render(text);
}
