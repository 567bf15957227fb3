/** Design files to and from the device. */
import type { DesignDocument } from "./document";

export function saveDesignFile(document: DesignDocument): void {
  const text = `${JSON.stringify(document, null, 2)}\n`;
  const link = window.document.createElement("a");
  link.href = URL.createObjectURL(new Blob([text], { type: "application/json" }));
  link.download = `${fileName(document.name ?? "")}.json`;
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
