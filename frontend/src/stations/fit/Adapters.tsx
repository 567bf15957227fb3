import { Box, Button, Flex } from "@chakra-ui/react";
import type { MadeAdapter } from "../../api/client";
import { useDocument, useEdit } from "../../document/context";
import { withValue } from "../../document/document";
import { Field, Switch, WholeNumber, Words } from "../../document/Field";
import { FIRST_ADAPTER, mountingOf, withPlates } from "../../document/mounting";
import { INK, LINE } from "../../drawing/colours";
import { ChoiceField } from "../../ui/fields/ChoiceField";
import { useUnits } from "../../ui/fields/units";
import { lengthText } from "./lengths";

const COLUMNS = {
  display: "grid",
  gap: "2",
  gridTemplateColumns: "repeat(auto-fill, minmax(150px, 1fr))",
} as const;

/** Plates between two flanges that were never meant for each other. */
export function Adapters({ made }: { made: MadeAdapter[] }) {
  const adapters = mountingOf(useDocument()).adapters ?? [];
  const { edit, readOnly } = useEdit();
  return (
    <Box data-adapters>
      {adapters.length === 0 && (
        <Box mb="2" maxW="70ch">
          An adapter joins two flanges that were never meant for each other, such as of a motor and of a
          bought axle: one plate or two, each side with its circle of bolts and its centring.
        </Box>
      )}
      {adapters.map((_, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: an adapter is its place in the list
        <OneAdapter key={i} path={`fit.adapters[${i}]`} made={made[i]} />
      ))}
      <Button
        size="sm"
        variant={adapters.length === 0 ? "solid" : "outline"}
        disabled={readOnly}
        onClick={() => edit((old) => withValue(old, `fit.adapters[${adapters.length}]`, FIRST_ADAPTER))}
      >
        Add an adapter
      </Button>
    </Box>
  );
}

function OneAdapter({ path, made }: { path: string; made: MadeAdapter | undefined }) {
  const { edit, readOnly } = useEdit();
  const two = made ? made.plates.length > 1 : false;
  return (
    <Box mb="4" pb="3" borderBottomWidth="1px" borderColor="line" data-adapter={path}>
      {made && <Drawn made={made} />}
      <Flex gap="2" align="end" wrap="wrap" mt="2">
        <Words path={`${path}.name`} label="name" />
        <ChoiceField
          label="plates"
          value={two ? "2" : "1"}
          options={[
            ["1", "one"],
            ["2", "two, joined"],
          ]}
          readOnly={readOnly}
          onChange={(plates) => edit((old) => withPlates(old, path, Number(plates)))}
        />
        <Button size="xs" disabled={readOnly} onClick={() => edit((old) => withValue(old, path, undefined))}>
          Remove
        </Button>
      </Flex>
      <Box {...COLUMNS} mt="2">
        <Field path={`${path}.outside`} label="plate across" dimension="length" />
        <Field path={`${path}.coupling`} label="coupling, long" dimension="length" optional />
        <Field path={`${path}.coupling_diameter`} label="coupling, across" dimension="length" optional />
        <Field path={`${path}.shaft_gap`} label="between shaft ends" dimension="length" optional />
        <Field path={`${path}.wall`} label="least metal" dimension="length" optional />
        {two && <Field path={`${path}.first_plate`} label="first plate, thick" dimension="length" optional />}
      </Box>
      {[0, 1].map((side) => (
        <Side key={side} path={`${path}.sides[${side}]`} number={side + 1} />
      ))}
      {two && (
        <>
          <Circle path={`${path}.joint`} words="Bolts that join the plates" />
          <Circle path={`${path}.dowels`} words="Dowels through both" />
        </>
      )}
    </Box>
  );
}

function Side({ path, number }: { path: string; number: number }) {
  return (
    <Box mt="3" role="group" aria-label={`Side ${number}`}>
      <Circle path={`${path}.bolts`} words={`Side ${number}: its bolts, seen from side 1`} />
      <Box {...COLUMNS} mt="1">
        <Words path={`${path}.name`} label="flange of" />
        <Field path={`${path}.head`} label="over a bolt's head" dimension="length" optional />
        <Field path={`${path}.centring`} label="centred on" dimension="length" optional />
        <Field path={`${path}.stands_out`} label="shaft stands out" dimension="length" optional />
      </Box>
      <Switch path={`${path}.spigot`} label="the plate stands into this flange" />
    </Box>
  );
}

function Circle({ path, words }: { path: string; words: string }) {
  return (
    <Box mt="2">
      <Box fontWeight="600">{words}</Box>
      <Box {...COLUMNS}>
        <WholeNumber path={`${path}.count`} label="how many" />
        <Field path={`${path}.circle`} label="circle" dimension="length" />
        <Field path={`${path}.hole`} label="hole" dimension="length" />
        <Field path={`${path}.angle`} label="first at" dimension="angle" optional />
      </Box>
    </Box>
  );
}

const SHOWN = 150;

/** Its plates as they are to be cut, side by side, with their thickness. */
function Drawn({ made }: { made: MadeAdapter }) {
  const units = useUnits();
  return (
    <Flex gap="4" wrap="wrap" align="start">
      {made.plates.map((plate) => {
        const scale = (0.5 * SHOWN - 4) / plate.outside;
        return (
          <Box key={plate.name} as="figure" m="0" data-plate={plate.name}>
            <svg
              width={SHOWN}
              height={SHOWN}
              viewBox={`${-SHOWN / 2} ${-SHOWN / 2} ${SHOWN} ${SHOWN}`}
              role="img"
              aria-label={`${plate.name}: ${plate.holes.length} holes`}
            >
              <circle r={plate.outside * scale} fill="none" stroke={INK} strokeWidth={1.6} />
              {[plate.spigot, plate.other_spigot ?? 0].map(
                (spigot, face) =>
                  spigot > 0 && (
                    // biome-ignore lint/suspicious/noArrayIndexKey: one on each face
                    <circle key={face} r={spigot * scale} fill="none" stroke={INK} strokeDasharray="5 3" />
                  ),
              )}
              {plate.holes.map((hole) => (
                <circle
                  key={`${hole.what} ${hole.x} ${hole.y}`}
                  cx={hole.x * scale}
                  cy={-hole.y * scale}
                  r={hole.radius * scale}
                  fill={LINE}
                  stroke={INK}
                />
              ))}
            </svg>
            <Box as="figcaption" fontSize="13px" textAlign="center" maxW={`${SHOWN}px`}>
              {plate.name}
              <Box fontFamily="mono" fontWeight="600" fontSize="md">
                {plate.thickness === null
                  ? "say how far the shafts stand out"
                  : `${lengthText(units, plate.thickness)} thick`}
              </Box>
            </Box>
          </Box>
        );
      })}
      {made.between !== null && (
        <Box alignSelf="center">
          <Box fontSize="13px" color="ink.second">
            from flange to flange
          </Box>
          <Box fontFamily="mono" fontWeight="600" fontSize="2xl">
            {lengthText(units, made.between)}
          </Box>
        </Box>
      )}
    </Flex>
  );
}
