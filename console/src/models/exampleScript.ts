/** What the workbench begins with where a model has no script yet. */
export const exampleScript = `function decodeUplink(input) {
  const b = input.bytes;
  return { data: { temperature: ((b[0] << 24 >> 16) | b[1]) / 10, humidity: b[2] } };
}
`;
