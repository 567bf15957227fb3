import { Box, Button } from "@chakra-ui/react";
import type { Rotation } from "../../../api/client";
import { useEdit, useFigures } from "../../../document/context";
import { withValue } from "../../../document/document";

/** Where the vehicle would run backwards, or a branch works against another: what helps, and does it on a click. */
export function Turning() {
  const { live } = useFigures();
  const { edit, readOnly } = useEdit();
  const { remedies, against, forwards, known } = live.rotation;
  if (!known || (forwards && against.length === 0)) return null;
  const apply = (remedy: Rotation["remedies"][number]) =>
    edit((document) =>
      remedy.changes.reduce(
        (change, { path, flag, teeth }) =>
          withValue(change, path, (teeth ? teeth.length > 0 && teeth : flag) || undefined),
        document,
      ),
    );
  return (
    <Box fontSize="sm" mb="3" p="2" bg="copper.wash" borderRadius="3px" role="note" data-turning>
      <Box fontWeight="600">
        {against.length > 0
          ? `Branch ${against.map((b) => b + 1).join(", ")} turns against branch 1.`
          : "The vehicle would run backwards."}
      </Box>
      {remedies.length === 0 && "An engine cannot be reversed: add a gear pair, or cross a V-belt."}
      {remedies.map((remedy) => (
        <Box key={`${remedy.words} ${remedy.changes[0]?.path}`} mt="1">
          {remedy.words}{" "}
          {!readOnly && (
            <Button size="xs" onClick={() => apply(remedy)} aria-label={`Do this: ${remedy.words}`}>
              Do this
            </Button>
          )}
        </Box>
      ))}
    </Box>
  );
}
