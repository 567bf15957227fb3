/** What is typed but not yet saved, kept by the browser until the server has it. */
import type { DesignDocument } from "./document";

export interface Draft {
  base: number;
  document: DesignDocument;
}

const key = (vehicle: string) => `ydrometer-draft-${vehicle}`;

export function keepDraft(vehicle: string, draft: Draft): void {
  try {
    localStorage.setItem(key(vehicle), JSON.stringify(draft));
  } catch {
    // A full or forbidden store only means that a reload before saving starts from the last saved state.
  }
}

export function dropDraft(vehicle: string): void {
  localStorage.removeItem(key(vehicle));
}

export function readDraft(vehicle: string): Draft | null {
  try {
    const text = localStorage.getItem(key(vehicle));
    return text === null ? null : (JSON.parse(text) as Draft);
  } catch {
    return null;
  }
}
