import { Box, Button, Flex } from "@chakra-ui/react";
import { memo } from "react";
import type { PlanShaft } from "../../api/client";
import { useDocument, useEdit } from "../../document/context";
import { Field, WholeNumber } from "../../document/Field";
import {
  type MountedShaft,
  mountedAs,
  mountingOf,
  shaftIndex,
  shaftOf,
  typedPlace,
  withShaft,
} from "../../document/mounting";
import { ChoiceField } from "../../ui/fields/ChoiceField";
import { useUnits } from "../../ui/fields/units";
import { MOUNT_WORDS } from "../../words/measures";
import { FRAME } from "../shared/frame";
import { Ratings } from "../shared/Strength";
import { lengthText } from "./lengths";

const PAIR = { display: "grid", gap: "2", gridTemplateColumns: "repeat(2, minmax(0, 1fr))" } as const;

/** How the chosen shaft is mounted, and what goes through the plate there. */
export const ShaftPanel = memo(function ShaftPanel({ shaft }: { shaft: PlanShaft }) {
  const document = useDocument();
  const { edit, readOnly } = useEdit();
  const units = useUnits();
  const said = shaftOf(document, shaft.path);
  const path = `fit.shafts[${shaftIndex(document, shaft.path)}]`;
  return (
    <Box {...FRAME} data-shaft-panel={shaft.path}>
      <Box as="h2" fontSize="lg" fontWeight="700" _firstLetter={{ textTransform: "uppercase" }}>
        {shaft.name}
      </Box>
      <Box fontFamily="mono" fontSize="md" data-stands>
        {`x ${lengthText(units, shaft.x)}   y ${lengthText(units, shaft.y)}`}
      </Box>
      <Box fontSize="13px" color="ink.second" mb="2">
        {shaft.carries.length > 0 ? `carries ${shaft.carries.join(", ")}` : "carries no wheel yet"}
        {shaft.by === "tied" && "; stands as its belt, chain or gear asks"}
        {shaft.by === "guessed" && "; nobody has said where it stands"}
      </Box>
      {shaft.other && <OtherPlace shaft={shaft} other={shaft.other} />}
      <Box mb="2">
        <ChoiceField
          label="mounted"
          value={said?.mount ?? shaft.mount}
          options={Object.entries(MOUNT_WORDS)}
          readOnly={readOnly}
          onChange={(mount) =>
            edit((old) => mountedAs(old, shaft.path, mount as NonNullable<MountedShaft["mount"]>, shaft))
          }
        />
      </Box>
      {shaft.slot && <SlotFields shaft={shaft} path={path} />}
      {said && (
        <>
          {!shaft.slot && said.at && (
            <Box {...PAIR} mb="2">
              <Field path={`${path}.at[0]`} label="x" dimension="length" />
              <Field path={`${path}.at[1]`} label="y" dimension="length" />
            </Box>
          )}
          <Box {...PAIR}>
            <Field path={`${path}.diameter`} label="shaft across" dimension="length" optional />
            <ChoiceField
              label="shape"
              value={String(said.shape ?? "round")}
              options={units.shapes.map((shape) => [shape, shape])}
              readOnly={readOnly}
              onChange={(shape) => edit((old) => withShaft(old, shaft.path, { shape }))}
            />
            <Field path={`${path}.length`} label="shaft length" dimension="length" optional />
            <Field path={`${path}.eccentric`} label="eccentric's throw" dimension="length" optional />
            <Field path={`${path}.opening`} label="hole in the plate" dimension="length" optional />
            <Field path={`${path}.body`} label="motor body, across" dimension="length" optional />
          </Box>
          <Ratings kind="shaft" path={path} title="What the shaft stands" />
          {said.bolts ? (
            <Box {...PAIR} mt="2">
              <WholeNumber path={`${path}.bolts.count`} label="bolts" />
              <Field path={`${path}.bolts.circle`} label="bolt circle" dimension="length" />
              <Field path={`${path}.bolts.hole`} label="bolt holes" dimension="length" />
              <Field path={`${path}.bolts.angle`} label="first at" dimension="angle" optional />
              <Field path={`${path}.bolts.length`} label="bolt length" dimension="length" optional />
              <Field path={`${path}.bolts.depth`} label="thread behind" dimension="length" optional />
            </Box>
          ) : (
            !readOnly && (
              <button
                type="button"
                className="link"
                onClick={() =>
                  edit((old) =>
                    withShaft(old, shaft.path, {
                      bolts: {
                        count: 4,
                        circle: "25 mm",
                        hole: "3.2 mm",
                        angle: "45 deg",
                      },
                    }),
                  )
                }
              >
                Add a circle of bolts
              </button>
            )
          )}
        </>
      )}
      {!mountingOf(document).plate && !said && (
        <Box fontSize="13px" color="ink.second">
          Choose how it is mounted to say more.
        </Box>
      )}
    </Box>
  );
});

/** The second place of a shaft that is right for two others, on the other side of them. */
function OtherPlace({ shaft, other: [x = 0, y = 0] }: { shaft: PlanShaft; other: number[] }) {
  const { edit, readOnly } = useEdit();
  const units = useUnits();
  return (
    <Box fontSize="13px" mb="2" data-other-place>
      {`It would suit both on the other side too, at x ${lengthText(units, x)}, y ${lengthText(units, y)}. `}
      <Button
        size="xs"
        disabled={readOnly}
        onClick={() => edit((old) => withShaft(old, shaft.path, { mount: "free", at: typedPlace({ x, y }) }))}
      >
        Put it there
      </Button>
    </Box>
  );
}

function SlotFields({ shaft, path }: { shaft: PlanShaft; path: string }) {
  const units = useUnits();
  const slot = shaft.slot as NonNullable<PlanShaft["slot"]>;
  const travel = Math.hypot(slot.x2 - slot.x1, slot.y2 - slot.y1);
  return (
    <Box mb="2" data-slot-travel>
      <Flex
        h="14px"
        borderWidth="1px"
        borderColor="ink.second"
        borderRadius="7px"
        bg="spruce.wash"
        position="relative"
      >
        <Box
          position="absolute"
          left={`${(100 * slot.setting) / travel}%`}
          top="-3px"
          w="3px"
          h="18px"
          ml="-1.5px"
          bg="ink"
        />
      </Flex>
      <Flex justify="space-between" fontFamily="mono" fontSize="12.5px" mt="1" mb="2">
        <span>{`${lengthText(units, slot.setting)} from start`}</span>
        <span>{`${lengthText(units, travel - slot.setting)} to end`}</span>
      </Flex>
      <Box {...PAIR}>
        <Field path={`${path}.slot.start[0]`} label="start x" dimension="length" />
        <Field path={`${path}.slot.start[1]`} label="start y" dimension="length" />
        <Field path={`${path}.slot.end[0]`} label="end x" dimension="length" />
        <Field path={`${path}.slot.end[1]`} label="end y" dimension="length" />
      </Box>
    </Box>
  );
}
