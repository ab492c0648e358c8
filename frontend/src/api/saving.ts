/** Lets the browser save a file under a name. */
export function saveBlob(content: Blob, name: string) {
  const address = URL.createObjectURL(content);
  const link = document.createElement("a");
  link.href = address;
  link.download = name;
  link.click();
  URL.revokeObjectURL(address);
}

/** Lets the browser save a text under a name. */
export function saveText(text: string, name: string) {
  saveBlob(new Blob([text], { type: "application/json" }), name);
}
