/** Hand a file to the device. */
export function saveBlob(name: string, blob: Blob): void {
  const link = window.document.createElement("a");
  link.href = URL.createObjectURL(blob);
  link.download = name;
  link.click();
  URL.revokeObjectURL(link.href);
}
