/** What of a quantity was typed: a text, a bare number in SI, or an object with how it was come by. Pure. */

/** The text of a quantity as it was typed; a bare number is SI and gets that unit. */
export function typedText(value: unknown, siUnit = ""): string {
  if (value === undefined || value === null) return "";
  if (typeof value === "object" && "value" in value) return typedText(value.value, siUnit);
  return typeof value === "number" ? `${value}${siUnit ? ` ${siUnit}` : ""}` : String(value);
}

export function note(value: unknown): string {
  return value !== null && typeof value === "object" && "note" in value ? String(value.note) : "";
}
