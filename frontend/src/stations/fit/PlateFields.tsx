import { Box, Button, Flex } from "@chakra-ui/react";
import { useDocument, useEdit } from "../../document/context";
import { Field, WholeNumber, Words } from "../../document/Field";
import { FIRST_PLATE, type FrameLine, plateOf, platePath, withPlate } from "../../document/mounting";

const COLUMNS = {
  display: "grid",
  gap: "2",
  gridTemplateColumns: "repeat(auto-fill, minmax(150px, 1fr))",
} as const;

const FIRST_LINE: FrameLine = { name: "frame", start: ["0 mm", "-30 mm"], end: ["300 mm", "-30 mm"] };

/** A plate, what must be kept clear, and how exact it has to be. */
export function PlateFields({ behind }: { behind: string }) {
  const document = useDocument();
  const { edit, set, readOnly } = useEdit();
  const { plate, frame = [] } = plateOf(document, behind);
  const at = platePath(document, behind);
  return (
    <Box data-plate-fields>
      {plate ? (
        <Box {...COLUMNS}>
          <Field path={`${at}.plate.hole_pitch`} label="holes apart" dimension="length" />
          <WholeNumber path={`${at}.plate.across`} label="holes across" />
          <WholeNumber path={`${at}.plate.up`} label="holes up" />
          <Field path={`${at}.plate.hole`} label="diameter of a hole" dimension="length" optional />
          <Field path={`${at}.plate.edge`} label="from hole to edge" dimension="length" optional />
          <Field path={`${at}.plate.thickness`} label="thickness" dimension="length" optional />
        </Box>
      ) : (
        <Button
          size="sm"
          disabled={readOnly}
          onClick={() => edit((old) => withPlate(old, behind, { plate: FIRST_PLATE }))}
        >
          Put it on a plate with a grid of holes
        </Button>
      )}
      <Box {...COLUMNS} mt="3">
        <Field path="fit.tolerance" label="gears apart, at most more" dimension="length" optional />
        <Field path="fit.loop_tolerance" label="loops off taut, at most" dimension="length" optional />
        <Field path="fit.gap" label="gap to what stands" dimension="length" optional />
        <Field path="fit.ground_gap" label="gap to the ground" dimension="length" optional />
      </Box>
      <Box as="h2" fontWeight="600" mt="3">
        Lines of the frame
      </Box>
      {frame.map((_, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a line is its place in the list
        <Flex key={i} gap="2" align="end" mt="1" wrap="wrap">
          <Words path={`${at}.frame[${i}].name`} label="name" />
          {(["start", "end"] as const).map((end) =>
            [0, 1].map((axis) => (
              <Box key={`${end} ${axis}`} w="92px">
                <Field
                  path={`${at}.frame[${i}].${end}[${axis}]`}
                  label={`${end} ${axis ? "y" : "x"}`}
                  dimension="length"
                />
              </Box>
            )),
          )}
          <Button size="xs" disabled={readOnly} onClick={() => set(`${at}.frame[${i}]`, undefined)}>
            Remove
          </Button>
        </Flex>
      ))}
      <Button
        size="xs"
        mt="2"
        disabled={readOnly}
        onClick={() =>
          edit((old) =>
            withPlate(old, behind, { frame: [...(plateOf(old, behind).frame ?? []), FIRST_LINE] }),
          )
        }
      >
        Add a line of the frame
      </Button>
    </Box>
  );
}
