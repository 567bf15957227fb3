import { Box } from "@chakra-ui/react";
import type { Stage } from "../../../document/document";
import { useKinds } from "../../../ui/fields/units";
import { LabelledInput, Strengths } from "../../shared/Strength";

/** Everything of a stage that is typed, but its teeth; what it stands apart from the rest. */
export function StageFields({ stage, path }: { stage: Stage; path: string }) {
  const fields = useKinds().of(stage.kind)?.fields ?? [];
  return (
    <Box display="grid" gap="2" mt="2">
      {fields
        .filter((field) => field.group === "")
        .map((field) => (
          <LabelledInput key={field.key} field={field} path={`${path}.${field.key}`} />
        ))}
      <Strengths path={path} fields={fields.filter((field) => field.group !== "")} />
    </Box>
  );
}
