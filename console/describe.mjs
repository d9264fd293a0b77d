// Makes the types of the service's API (src/api/schema.ts) from its description in docs/openapi.json.
import { readFile, writeFile } from "node:fs/promises";
import openapiTS, { astToString } from "openapi-typescript";

const from = new URL("../docs/openapi.json", import.meta.url);
const to = new URL("src/api/schema.ts", import.meta.url);
const { openapi, info, components } = JSON.parse(await readFile(from, "utf8"));
// The console asks by the addresses it knows; it is the shapes that it takes from here.
const types = await openapiTS(
  { openapi, info, paths: {}, components: { schemas: components.schemas } },
  { rootTypes: true, rootTypesNoSchemaPrefix: true, rootTypesKeepCasing: true },
);
const text = "// Made by describe.mjs from docs/openapi.json; not to be edited.\n" + astToString(types);
if (text !== (await readFile(to, "utf8").catch(() => ""))) {
  await writeFile(to, text);
}
