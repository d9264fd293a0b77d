import type { DeviceModel } from "@/api/types";

/** A layout as people read and change it: a field on a line, and nothing that says nothing. */
export function layoutText(layout: DeviceModel["layout"]): string {
  const messages = layout.messages.map((message) => {
    const fields = message.fields
      .map((field) => "      " + JSON.stringify(field, (_key, value) => value ?? undefined))
      .join(",\n");
    const port = message.port === null || message.port === undefined ? "" : `"port": ${message.port}, `;
    return `    {${port}"fields": [\n${fields}\n    ]}`;
  });
  return `{\n  "messages": [\n${messages.join(",\n")}\n  ]\n}`;
}
