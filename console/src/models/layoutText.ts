import type { ByteLayout, Layout } from "@/api/types";

/** A layout as people read and change it: a field on a line, and nothing that says nothing. */
export function layoutText(layout: Layout): string {
  if (layout.format && layout.format !== "bytes") {
    return JSON.stringify(layout, (_key, value) => value ?? undefined, 2);
  }
  const messages = (layout as ByteLayout).messages.map((message) => {
    const fields = message.fields
      .map((field) => "      " + JSON.stringify(field, (_key, value) => value ?? undefined))
      .join(",\n");
    const port = message.port === null || message.port === undefined ? "" : `"port": ${message.port}, `;
    return `    {${port}"fields": [\n${fields}\n    ]}`;
  });
  return `{\n  "messages": [\n${messages.join(",\n")}\n  ]\n}`;
}
