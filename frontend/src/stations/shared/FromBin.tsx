import type { PartDocument } from "../../document/bin/bin";
import { useParts } from "../../document/bin/useBin";
import { usePartName } from "../../document/bin/usePartName";
import { useEdit, usePlace } from "../../document/context";
import { withValues } from "../../document/document";

interface Props {
  label: string;
  kinds: string[];
  /** Which of them can be taken here; all where it is not given. */
  only?: (part: PartDocument) => boolean;
  /** What of the part goes where in the document. */
  changes: (part: PartDocument) => Record<string, unknown>;
}

/** Takes a whole part of the bin into the design; what is typed instead needs no part. */
export function FromBin({ label, kinds, only, changes }: Props) {
  const { workshop } = usePlace();
  const { edit, readOnly } = useEdit();
  const name = usePartName();
  const parts = useParts(workshop)
    .data?.map((part) => part.document)
    .filter((part) => kinds.includes(part.kind) && (only?.(part) ?? true));
  if (readOnly || !parts?.length) return null;
  const take = (id: string) => {
    const part = parts.find((p) => p.id === id);
    if (part) edit((old) => withValues(old, changes(part)));
  };
  return (
    <select
      className="plain small"
      aria-label={label}
      value=""
      onChange={(event) => take(event.target.value)}
      style={{ width: "100%" }}
    >
      <option value="">{label}</option>
      {parts.map((part) => (
        <option key={part.id} value={part.id}>
          {name(part)}
          {Number(part.owned) > 0 ? `, ${part.owned} owned` : ""}
        </option>
      ))}
    </select>
  );
}
