/** Hands a file to whoever looks at the page, under a name that every system takes. */
export function saveAs(content: Blob, name: string) {
  const link = document.createElement("a");
  link.href = URL.createObjectURL(content);
  link.download = name.replace(/[^\p{L}\p{N} .,-]+/gu, "-");
  link.click();
  setTimeout(() => URL.revokeObjectURL(link.href), 10_000);
}
