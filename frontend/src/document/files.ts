/** Design files to and from the device. */
import { saveBlob } from "../ui/saving";
import type { DesignDocument } from "./document";

export function saveDesignFile(document: DesignDocument): void {
  const text = `${JSON.stringify(document, null, 2)}\n`;
  saveText(`${fileName(document.name ?? "")}.json`, "application/json", text);
}

/** Hand a text to the device as a file. */
export function saveText(name: string, type: string, text: string): void {
  saveBlob(name, new Blob([text], { type }));
}

/** Hand a file that came in base64 to the device. */
export function saveBase64({ name, type, data }: { name: string; type: string; data: string }): void {
  saveBlob(name, new Blob([Uint8Array.from(atob(data), (sign) => sign.charCodeAt(0))], { type }));
}

/** A file's bytes in base64. */
export function base64(file: File): Promise<string> {
  return new Promise((resolve, reject) => {
    const reader = new FileReader();
    reader.onload = () => resolve(String(reader.result).replace(/^[^,]*,/, ""));
    reader.onerror = () => reject(new Error(`${file.name} cannot be read`));
    reader.readAsDataURL(file);
  });
}

export function fileName(name: string): string {
  return (
    name
      .toLowerCase()
      .replace(/[^\p{L}\p{N}]+/gu, "-")
      .replace(/^-+|-+$/g, "") || "design"
  );
}
