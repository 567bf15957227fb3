import { Heading } from "@chakra-ui/react";
import type { Wheel } from "../../api/client";
import { at, type Stage, sizePath, teethPath } from "../../design/document";
import { digits, show, useUnits } from "../../fields/units";
import { MEMBER_WORDS, STAGE_WORDS } from "../../words/measures";
import { useDocument, useFigures } from "../context";
import { Facts } from "./Facts";
import { FromBin } from "./FromBin";
import { RatioWords } from "./RatioWords";
import { StageActions } from "./StageActions";
import { StageFields } from "./StageFields";
import { TeethEditor } from "./TeethEditor";
import { useFits } from "./useFits";

/** A wheel with its stage: its teeth, the ratio in words, sizes, and what can be done with the stage. */
export function WheelPanel({ wheel }: { wheel: Wheel }) {
  const document = useDocument();
  const path = teethPath(wheel.path, wheel.member);
  const stage = at(document, wheel.path) as Stage | undefined;
  const fits = useFits(wheel.path);
  // Undone in the document, and still in the figures until they follow.
  if (!stage) return null;
  return (
    <>
      <Heading as="h2" size="sm" mb="2">
        {STAGE_WORDS[stage.kind]}: {wheel.member} {MEMBER_WORDS[wheel.form]}
      </Heading>
      {wheel.teeth !== null && (
        <TeethEditor
          key={path}
          shown={wheel.teeth}
          typed={String(at(document, path) ?? "")}
          path={path}
          fits={fits}
        />
      )}
      {wheel.form === "grooved" && (
        <FromBin
          label="Take a V-pulley of the bin"
          kinds={["v_pulley"]}
          changes={(part) => ({ [sizePath(wheel.path, wheel.member, false)]: part.pitch_diameter })}
        />
      )}
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
        ["Turns", wheel.sense > 0 ? "clockwise" : "anticlockwise"],
        [loop?.assumed ? "Centres, assumed" : "Centres", loop && length(loop.centre_distance)],
        ["In contact", wrap === undefined ? null : `${digits((wrap * 180) / Math.PI)}°`],
        [flow?.assumed ? "Loss, assumed" : "Loss", flow && `${digits((1 - flow.efficiency) * 100)} %`],
      ]}
    />
  );
}
