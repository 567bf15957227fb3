import { Box } from "@chakra-ui/react";
import type { Vocabulary } from "../../../api/client";
import { useDocument, useEdit } from "../../../document/context";
import { at } from "../../../document/document";
import { Field, NumberList, Switch, WholeNumber } from "../../../document/Field";
import { ChoiceField } from "../../../ui/fields/ChoiceField";
import { useUnits } from "../../../ui/fields/units";

type LabelledField = Vocabulary["ratings"][number]["fields"][number];

interface Props {
  /** Of the part that the fields belong to. */
  path: string;
  fields: LabelledField[];
  title?: string;
}

/** What a part stands, as its maker says: folded away until somebody has looked it up. */
export function Strength({ path, fields, title = "What it stands" }: Props) {
  const document = useDocument();
  if (fields.length === 0) return null;
  const said = fields.filter((field) => at(document, `${path}.${field.key}`) !== undefined).length;
  return (
    <Box asChild gridColumn="1 / -1">
      <details data-strength={path}>
        <summary>
          {title}{" "}
          <Box as="span" color="ink.second" fontSize="sm">
            {said ? `${said} said` : "nothing said yet"}
          </Box>
        </summary>
        <Box display="grid" gap="2" mt="1">
          {fields.map((field) => (
            <LabelledInput key={field.key} field={field} path={`${path}.${field.key}`} />
          ))}
        </Box>
      </details>
    </Box>
  );
}

/** The ratings of a source, a controller or a supply, as the core lists them. */
export function Ratings({ kind, path, title }: { kind: string; path: string; title: string }) {
  const fields = useUnits().ratings.find((rating) => rating.kind === kind)?.fields ?? [];
  return <Strength path={path} fields={fields} title={title} />;
}

/** A field typed the way the core says. */
export function LabelledInput({ field, path }: { field: LabelledField; path: string }) {
  const document = useDocument();
  const { set, readOnly } = useEdit();
  const { label, dimension, optional } = field;
  switch (field.control) {
    case "numbers":
      return <NumberList path={path} label={label} />;
    case "whole":
      return <WholeNumber path={path} label={label} />;
    case "flag":
      return <Switch path={path} label={label} />;
    case "choice":
      return (
        <ChoiceField
          label={label}
          value={String(at(document, path) ?? "")}
          options={[["", "not said"], ...field.choices.map((choice): [string, string] => [choice, choice])]}
          readOnly={readOnly}
          onChange={(value) => set(path, value || undefined)}
        />
      );
    default:
      return <Field path={path} label={label} dimension={dimension} optional={optional} />;
  }
}
