import { useVocabulary } from "../../api/session";
import { useUnits } from "../../ui/fields/units";
import type { PartDocument } from "./bin";
import { calledPart } from "./cells";

/** What parts are called, in the units on display; by their ids until the kinds are known. */
export function usePartName(): (part: PartDocument) => string {
  const units = useUnits();
  const kinds = useVocabulary().data?.parts;
  return (part) => {
    const kind = kinds?.find((k) => k.kind === part.kind);
    return kind ? calledPart(units, kind, part) : part.id;
  };
}
