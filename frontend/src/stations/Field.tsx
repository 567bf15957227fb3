import { at } from "../design/document";
import { QuantityField } from "../fields/QuantityField";
import { WholeField } from "../fields/WholeField";
import { faultAt, siAt, useDocument, useEdit, useFigures } from "./context";

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
  return (
    <QuantityField
      label={label}
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
