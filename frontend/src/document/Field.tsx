import { QuantityField } from "../ui/fields/QuantityField";
import { TextField } from "../ui/fields/TextField";
import { useUnits } from "../ui/fields/units";
import { WholeField } from "../ui/fields/WholeField";
import { faultAt, siAt, useDocument, useEdit, useFigures } from "./context";
import { at } from "./document";
import { TypicalField } from "./TypicalField";

interface Props {
  path: string;
  label: string;
  dimension: string;
  optional?: boolean;
  inline?: boolean;
}

/** The quantity at a path of the document, edited in place. */
export function Field({ path, label, dimension, optional, inline }: Props) {
  const document = useDocument();
  const { live, faults } = useFigures();
  const { set, readOnly } = useEdit();
  const { typical } = useUnits();
  const field = (
    <QuantityField
      label={label}
      path={path}
      dimension={dimension}
      value={at(document, path)}
      si={siAt(live, path)}
      fault={faultAt(faults, path)}
      optional={optional}
      inline={inline}
      readOnly={readOnly}
      onChange={(text) => set(path, text)}
    />
  );
  if (!typical.includes(path.replace(/\[\d+\]/g, "[]"))) return field;
  return (
    <TypicalField path={path} label={label}>
      {field}
    </TypicalField>
  );
}

/** The whole number at a path of the document; empty stands for the format's default. */
export function WholeNumber({ path, label }: { path: string; label: string }) {
  const document = useDocument();
  const { faults } = useFigures();
  const { set, readOnly } = useEdit();
  return (
    <WholeField
      label={label}
      value={at(document, path) as number | undefined}
      fault={faultAt(faults, path)}
      optional
      readOnly={readOnly}
      onChange={(value) => set(path, value)}
    />
  );
}

/** A list of numbers at a path, typed with spaces or commas between them. */
export function NumberList({ path, label }: { path: string; label: string }) {
  const document = useDocument();
  const { faults } = useFigures();
  const { set, readOnly } = useEdit();
  const value = at(document, path);
  return (
    <TextField
      label={label}
      value={Array.isArray(value) ? value.join("  ") : String(value ?? "")}
      fault={faultAt(faults, path)}
      readOnly={readOnly}
      onChange={(text) =>
        set(
          path,
          text
            .split(/[\s,;]+/)
            .filter(Boolean)
            .map(numberOrText),
        )
      }
    />
  );
}

const numberOrText = (text: string) => (Number.isFinite(Number(text)) ? Number(text) : text);

/** Something that is true or not; what is not true is left out of the document. */
export function Switch({ path, label }: { path: string; label: string }) {
  const document = useDocument();
  const { set, readOnly } = useEdit();
  return (
    <label style={{ fontSize: "14px" }}>
      <input
        type="checkbox"
        checked={at(document, path) === true}
        disabled={readOnly}
        onChange={(event) => set(path, event.target.checked || undefined)}
      />{" "}
      {label}
    </label>
  );
}

/** A text at a path of the document. */
export function Words({ path, label }: { path: string; label: string }) {
  const document = useDocument();
  const { faults } = useFigures();
  const { set, readOnly } = useEdit();
  return (
    <TextField
      label={label}
      value={String(at(document, path) ?? "")}
      fault={faultAt(faults, path)}
      readOnly={readOnly}
      onChange={(text) => set(path, text || undefined)}
    />
  );
}
