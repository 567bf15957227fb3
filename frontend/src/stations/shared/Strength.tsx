import { Box } from "@chakra-ui/react";
import type { Vocabulary } from "../../api/client";
import { useDocument, useEdit } from "../../document/context";
import { at } from "../../document/document";
import { Field, NumberList, Switch, WholeNumber } from "../../document/Field";
import { ChoiceField } from "../../ui/fields/ChoiceField";
import { useUnits } from "../../ui/fields/units";

type LabelledField = Vocabulary["ratings"][number]["fields"][number];

interface Props {
  /** Of the part that the fields belong to. */
  path: string;
  fields: LabelledField[];
  title?: string;
}

/** The group of what makers say of a part; each other group is called by its own name. */
const STRENGTH = "strength";

/** What a part stands, as its maker says, and how it is held: each group folded away until somebody has looked it up. */
export function Strengths({ path, fields, title = "What it stands" }: Props) {
  const groups = [...new Set(fields.map((field) => field.group))];
  return groups.map((group) => (
    <Strength
      key={group}
      path={path}
      fields={fields.filter((field) => field.group === group)}
      title={group === STRENGTH ? title : group}
    />
  ));
}

function Strength({ path, fields, title }: Required<Props>) {
  const document = useDocument();
  const said = fields.filter((field) => at(document, `${path}.${field.key}`) !== undefined).length;
  return (
    <Box asChild gridColumn="1 / -1">
      <details data-strength={path} data-group={title}>
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
  return <Strengths path={path} fields={fields} title={title} />;
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
