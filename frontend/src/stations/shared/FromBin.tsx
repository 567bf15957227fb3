import { useParts } from "../../document/bin/useBin";
import { usePartName } from "../../document/bin/usePartName";
import { useEdit, usePlace } from "../../document/context";
import { useChoice } from "../../document/useChoice";
import { Trouble } from "../../ui/Trouble";

interface Props {
  label: string;
  kinds: string[];
  /** What takes it; empty of what a vehicle has once. */
  path?: string;
  /** The wheel of a stage that it becomes. */
  member?: string;
}

/** Takes a whole part of the bin into the design; what is typed instead needs no part. */
export function FromBin({ label, kinds, path = "", member }: Props) {
  const { workshop } = usePlace();
  const { readOnly } = useEdit();
  const { make, trouble } = useChoice();
  const name = usePartName();
  const parts = useParts(workshop)
    .data?.map((part) => part.document)
    .filter((part) => kinds.includes(part.kind));
  if (readOnly || !parts?.length) return null;
  const take = (id: string) => {
    const part = parts.find((p) => p.id === id);
    if (part) make({ path, part, member });
  };
  return (
    <>
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
      <Trouble text={trouble} />
    </>
  );
}
