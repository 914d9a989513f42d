/** Hands bytes to the browser as a file. */
export function saveAs(content: Blob, name: string): void {
  const place = URL.createObjectURL(content);
  const link = document.createElement("a");
  link.href = place;
  link.download = name;
  link.click();
  URL.revokeObjectURL(place);
}
