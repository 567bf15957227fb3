import { Box, Flex, Heading } from "@chakra-ui/react";
import { memo } from "react";
import type { Live } from "../../../api/client";
import { useDocument, useFigures } from "../../../document/context";
import { at, type Stage } from "../../../document/document";
import { Field } from "../../../document/Field";
import { SUPPLY } from "../../../document/selected";
import { useKinds } from "../../../ui/fields/units";
import { StandingMark } from "../../../ui/StandingMark";
import { FromBin } from "../../shared/FromBin";
import { Clocked } from "../Clocked";
import { SourcePanel, SupplyPanel } from "../source/SourcePanel";
import { RatioWords } from "./RatioWords";
import { StageActions } from "./StageActions";
import { StageFields } from "./StageFields";
import { Turning } from "./Turning";
import { WheelPanel } from "./WheelPanel";

/** What is selected in the drawing, with everything that can be changed about it. */
export const SelectedPanel = memo(function SelectedPanel() {
  const { live, selected } = useFigures();
  const { rows } = live.view.line;
  const wheel = rows
    .flatMap((row) => row.wheels)
    .find((w) => w.path === selected?.path && w.member === selected.member);
  const box = rows.flatMap((row) => row.boxes).find((b) => b.path === selected?.path);
  return (
    <Box bg="panel" borderWidth="1px" borderColor="line" borderRadius="3px" p="3" data-panel>
      <Turning />
      <Clocked />
      {wheel ? (
        <WheelPanel wheel={wheel} />
      ) : selected?.member === "motor" ? (
        <SourcePanel path={selected.path} />
      ) : selected?.member === SUPPLY.member ? (
        <SupplyPanel />
      ) : selected?.member === "wheel" ? (
        <RoadWheelPanel />
      ) : box ? (
        <BoxPanel path={box.path} />
      ) : (
        <Nothing />
      )}
      <Messages live={live} />
    </Box>
  );
});

function Nothing() {
  return (
    <Box color="ink.second">Choose the motor or a wheel in the drawing: click it, or walk with Tab.</Box>
  );
}

/** The wheel on the ground: its diameter, typed or from the bin. */
function RoadWheelPanel() {
  return (
    <>
      <Heading as="h2" size="sm" mb="2">
        Wheel on the ground
      </Heading>
      <Box display="grid" gap="2">
        <FromBin label="Take a wheel of the bin" kinds={["wheel"]} />
        <Field path="vehicle.wheel_diameter" label="Rolling diameter, loaded" dimension="length" />
        <Field path="vehicle.rolling_resistance" label="Rolling resistance" dimension="ratio" optional />
        <Field path="vehicle.grip" label="Grip" dimension="ratio" optional />
      </Box>
    </>
  );
}

function BoxPanel({ path }: { path: string }) {
  const document = useDocument();
  const stage = at(document, path) as Stage | undefined;
  const kinds = useKinds();
  const kind = kinds.of(stage?.kind ?? "");
  if (!stage) return null;
  return (
    <>
      <Heading as="h2" size="sm" mb="2">
        {kind?.title ?? stage.kind}
      </Heading>
      {kind?.whole_part && (
        <FromBin label={`Take a ${kind.whole_part} of the bin`} kinds={[kind.whole_part]} path={path} />
      )}
      <RatioWords path={path} />
      <StageFields stage={stage} path={path} />
      <StageActions path={path} />
    </>
  );
}

/** What is said about turning stands above, with what helps. */
const SAID = "drive";

function Messages({ live }: { live: Live }) {
  const shown = live.messages.filter(
    (message) => message.path !== SAID || live.state !== "ok" || !live.rotation.known,
  );
  if (shown.length === 0) return null;
  return (
    <Box mt="3" display="grid" gap="2">
      {shown.map((message) => (
        <Flex key={message.text} gap="2" fontSize="sm" role="note">
          <Box pt="1">
            <StandingMark standing={message.level === "note" ? "unknown" : "misses"} />
          </Box>
          {message.text}
        </Flex>
      ))}
    </Box>
  );
}
