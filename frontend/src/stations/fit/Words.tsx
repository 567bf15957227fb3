import { at } from "../../design/document";
import { TextField } from "../../fields/TextField";
import { faultAt, useDocument, useEdit, useFigures } from "../context";

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
