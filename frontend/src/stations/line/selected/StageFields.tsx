import { Box } from "@chakra-ui/react";
import type { Stage } from "../../../document/document";
import { Field, NumberList, Switch, WholeNumber } from "../../../document/Field";
import { useKinds } from "../../../ui/fields/units";
import type { StageKind } from "../../../words/kinds";

/** Everything of a stage that is typed, but its teeth. */
export function StageFields({ stage, path }: { stage: Stage; path: string }) {
  const kind = useKinds().of(stage.kind);
  return (
    <Box display="grid" gap="2" mt="2">
      {kind?.fields.map((field) => (
        <StageField key={field.key} field={field} path={`${path}.${field.key}`} />
      ))}
    </Box>
  );
}

function StageField({ field, path }: { field: StageKind["fields"][number]; path: string }) {
  const { label, dimension, optional } = field;
  switch (field.control) {
    case "numbers":
      return <NumberList path={path} label={label} />;
    case "whole":
      return <WholeNumber path={path} label={label} />;
    case "flag":
      return <Switch path={path} label={label} />;
    default:
      return <Field path={path} label={label} dimension={dimension} optional={optional} />;
  }
}
