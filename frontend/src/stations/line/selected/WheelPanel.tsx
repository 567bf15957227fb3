import { Box, Heading } from "@chakra-ui/react";
import type { Fit, Wheel } from "../../../api/client";
import { useParts } from "../../../document/bin/useBin";
import { useDocument, useFigures, usePlace } from "../../../document/context";
import { at, type Stage } from "../../../document/document";
import { useChoice } from "../../../document/useChoice";
import { digits, show, useKinds, useUnits } from "../../../ui/fields/units";
import { Trouble } from "../../../ui/Trouble";
import { FromBin } from "../../shared/FromBin";
import { Facts } from "./Facts";
import { RatioWords } from "./RatioWords";
import { StageActions } from "./StageActions";
import { StageFields } from "./StageFields";
import { TeethEditor } from "./TeethEditor";
import { useFits } from "./useFits";

/** A wheel with its stage: its teeth, the ratio in words, sizes, and what can be done with the stage. */
export function WheelPanel({ wheel }: { wheel: Wheel }) {
  const document = useDocument();
  const stage = at(document, wheel.path) as Stage | undefined;
  const fits = useFits(wheel.path);
  const kind = useKinds().of(stage?.kind ?? "");
  const { workshop } = usePlace();
  const { make, trouble } = useChoice();
  const parts = useParts(workshop).data;
  // Undone in the document, and still in the figures until they follow.
  if (!stage) return null;
  const take = ({ id }: Fit) => {
    const part = parts?.find((part) => part.document.id === id)?.document;
    if (part) make({ path: wheel.path, member: wheel.member, part });
  };
  return (
    <>
      <Heading as="h2" size="sm" mb="2">
        {kind?.title ?? stage.kind}: {wheel.member} {wheel.noun}
      </Heading>
      {wheel.teeth !== null && (
        <TeethEditor
          key={wheel.place}
          shown={wheel.teeth}
          typed={String(at(document, wheel.place) ?? "")}
          least={wheel.least}
          path={wheel.place}
          fits={fits}
          onTake={take}
        />
      )}
      {kind?.part && !kind.toothed && (
        <FromBin
          label={`Take a ${wheel.noun} of the bin`}
          kinds={[kind.part]}
          path={wheel.path}
          member={wheel.member}
        />
      )}
      {kind?.loop_part && (
        <Box mt="2">
          <FromBin label={`Take a ${kind.loop_noun} of the bin`} kinds={[kind.loop_part]} path={wheel.path} />
        </Box>
      )}
      <Trouble text={trouble} />
      <RatioWords path={wheel.path} />
      <WheelFacts wheel={wheel} />
      <StageFields stage={stage} path={wheel.path} />
      <StageActions path={wheel.path} />
    </>
  );
}

function WheelFacts({ wheel }: { wheel: Wheel }) {
  const { live } = useFigures();
  const units = useUnits();
  const flow = live.flows.at(-1)?.stages.find((s) => s.path === wheel.path);
  const loop = live.view.line.rows.flatMap((row) => row.loops).find((l) => l.path === wheel.path);
  const length = (si: number) => Object.values(show(units, "length", si)).join(" ");
  const wrap = loop && (wheel.member === "driver" ? loop.driver_wrap : loop.driven_wrap);
  return (
    <Facts
      rows={[
        ["Pitch circle, diameter", length(2 * wheel.pitch_radius)],
        ["Turns", wheel.rotation > 0 ? "clockwise" : "anticlockwise"],
        [loop?.assumed ? "Centres, assumed" : "Centres", loop && length(loop.centre_distance)],
        ["In contact", wrap === undefined ? null : `${digits((wrap * 180) / Math.PI)}°`],
        [flow?.assumed ? "Loss, assumed" : "Loss", flow && `${digits(flow.lost * 100)} %`],
        ["Of it slip", flow && flow.slip > 0 ? `${digits(flow.slip * 100)} %` : null],
      ]}
    />
  );
}
