/** Design files to and from the device. */
import type { DesignDocument } from "./document";

export function saveDesignFile(document: DesignDocument): void {
  const text = `${JSON.stringify(document, null, 2)}\n`;
  saveText(`${fileName(document.name ?? "")}.json`, "application/json", text);
}

/** Hand a text to the device as a file. */
export function saveText(name: string, type: string, text: string): void {
  const link = window.document.createElement("a");
  link.href = URL.createObjectURL(new Blob([text], { type }));
  link.download = name;
  link.click();
  URL.revokeObjectURL(link.href);
}

export function fileName(name: string): string {
  return (
    name
      .toLowerCase()
      .replace(/[^\p{L}\p{N}]+/gu, "-")
      .replace(/^-+|-+$/g, "") || "design"
  );
}
