import { Box, Flex, Heading } from "@chakra-ui/react";
import { Link } from "react-router";
import type { Standing } from "../../api/client";
import { useDocument, useEdit, useFigures, usePlace } from "../../document/context";
import { Field, WholeNumber } from "../../document/Field";
import { TextField } from "../../ui/fields/TextField";
import { useBar } from "../../ui/frame/TopBar";
import { StandingMark } from "../../ui/StandingMark";
import { FromBin } from "../shared/FromBin";
import { Ratings } from "../shared/Strength";
import { Aids } from "./Aids";
import { DrivenAxle } from "./DrivenAxle";
import { SideView } from "./SideView";
import { Targets } from "./Targets";

/** What the vehicle must do, and what it is. */
export function BriefStation() {
  return (
    <Box
      display="grid"
      gridTemplateColumns={{ base: "minmax(0, 1fr)", lg: "minmax(0, 1fr) minmax(0, 1fr)" }}
      gap="3"
      alignItems="start"
    >
      <Panel title="It must">
        <Targets />
        <Conditions />
      </Panel>
      <Panel title="The vehicle">
        <SideView />
        <Measures />
        <Aids />
        <Worth />
        <Words />
      </Panel>
    </Box>
  );
}

/** What would be worth measuring first, and whether assumed values count as doubtful at all. */
function Worth() {
  const { uncertainties } = useFigures();
  const { vehicle } = usePlace();
  const { preferences, change } = useBar();
  return (
    <Box mt="4" data-doubts>
      <Box fontWeight="600" minH="1.4em">
        {uncertainties?.first}{" "}
        {uncertainties?.first && (
          <Box asChild color="spruce" textDecoration="underline" fontWeight="400">
            <Link to={`/vehicles/${vehicle}/runs`}>Measure it in Runs</Link>
          </Box>
        )}
      </Box>
      <label style={{ fontSize: "14px" }}>
        <input
          type="checkbox"
          checked={preferences.doubtAssumed}
          onChange={(event) => change({ doubtAssumed: event.target.checked })}
        />{" "}
        Count the usual doubt in assumed values
      </label>
    </Box>
  );
}

const SHOWN: Record<string, Standing> = { caution: "tight", note: "unknown" };

/** Cautions, notes and warnings that the figures call for. */
function Words() {
  const { live } = useFigures();
  return (
    <Box as="ul" listStyleType="none" p="0" mt="3" fontSize="sm" data-cautions>
      {live.messages.map((message) => (
        <Flex as="li" key={message.text} gap="2" py="1" borderTopWidth="1px" borderColor="line">
          <Box pt="1">
            <StandingMark standing={SHOWN[message.level] ?? "misses"} />
          </Box>
          {message.text}
        </Flex>
      ))}
    </Box>
  );
}

function Panel({ title, children }: { title: string; children: React.ReactNode }) {
  return (
    <Box as="section" bg="panel" borderWidth="1px" borderColor="line" borderRadius="3px" p="4" minW="0">
      <Heading as="h2" size="md" mb="2">
        {title}
      </Heading>
      {children}
    </Box>
  );
}

const GRID = {
  display: "grid",
  gridTemplateColumns: "repeat(auto-fill, minmax(170px, 1fr))",
  gap: "3",
} as const;

function Measures() {
  return (
    <Box {...GRID} mt="3">
      <Field path="vehicle.mass" label="Mass, battery in" dimension="mass" />
      <Field path="vehicle.payload" label="Payload or rider" dimension="mass" optional />
      <Box>
        <Field path="vehicle.wheel_diameter" label="Rolling diameter, loaded" dimension="length" />
        <FromBin label="Take a wheel of the bin" kinds={["wheel"]} />
      </Box>
      <DrivenAxle />
      <Field path="vehicle.wheelbase" label="Wheelbase" dimension="length" optional />
      <Field
        path="vehicle.cg_ahead_of_rear"
        label="Centre of mass, ahead of rear axle"
        dimension="length"
        optional
      />
      <Field path="vehicle.cg_height" label="Centre of mass, height" dimension="length" optional />
      <Field path="vehicle.rolling_resistance" label="Rolling resistance" dimension="ratio" optional />
      <Field path="vehicle.grip" label="Grip" dimension="ratio" optional />
      <Field path="vehicle.drag_area" label="Drag area" dimension="area" optional />
      <Field path="vehicle.brake_force" label="Brake force" dimension="force" optional />
      <Field path="vehicle.braked_share" label="Share of the weight that brakes" dimension="ratio" optional />
      <Field path="vehicle.fixed_drag" label="Drag that is always there" dimension="force" optional />
      <WholeNumber path="drive.units" label="Drive units" />
      <WholeNumber path="vehicle.wheels" label="Wheels on the ground (else 4)" />
      <WholeNumber path="vehicle.tracks" label="Tracks in place of wheels" />
      <Ratings kind="axle" path="vehicle" title="Axles of its wheels" />
    </Box>
  );
}

function Conditions() {
  const document = useDocument();
  const { set, readOnly } = useEdit();
  return (
    <Box mt="5">
      <Heading as="h3" size="sm" mb="2">
        Where and how far
      </Heading>
      <Box {...GRID}>
        <Field path="run.distance" label="Distance of the run" dimension="distance" optional />
        <Field path="run.speed" label="Speed to reach" dimension="speed" optional />
        <Field path="run.time" label="Time of the run" dimension="time" optional />
        <Field path="conditions.grade" label="Slope it drives on" dimension="grade" optional />
        <TextField
          label="Name"
          value={document.name ?? ""}
          readOnly={readOnly}
          onChange={(text) => set("name", text)}
        />
      </Box>
      <Box mt="3">
        <TextField
          label="Notes"
          lines={2}
          value={document.notes ?? ""}
          readOnly={readOnly}
          onChange={(text) => set("notes", text)}
        />
      </Box>
    </Box>
  );
}
