import { Box, Button, Flex, Heading, Input } from "@chakra-ui/react";
import { useEffect, useState } from "react";
import type { Live, Wheel } from "../../api/client";
import { at, LEAST_TEETH, type Stage, teethPath } from "../../design/document";
import { change, digits, show, useUnits } from "../../fields/units";
import { StandingMark } from "../../marks/StandingMark";
import { MEMBER_WORDS, STAGE_WORDS } from "../../words/measures";
import { faultAt, useDocument, useEdit, useFigures } from "../context";
import { SourcePanel } from "./SourcePanel";
import { StageFields } from "./StageFields";
import { addStage, NEW_STAGES, removeStage } from "./stages";

/** What is selected in the drawing, with everything that can be changed about it. */
export function SelectedPanel() {
  const { live, selected } = useFigures();
  const wheel = live.view.line.wheels.find((w) => w.path === selected?.path && w.member === selected.member);
  const box = live.view.line.boxes.find((b) => b.path === selected?.path);
  return (
    <Box bg="panel" borderWidth="1px" borderColor="line" borderRadius="3px" p="3" data-panel>
      {wheel ? (
        <WheelPanel wheel={wheel} />
      ) : selected?.member === "motor" ? (
        <SourcePanel />
      ) : box ? (
        <BoxPanel path={box.path} />
      ) : (
        <Nothing />
      )}
      <Messages live={live} />
    </Box>
  );
}

function Nothing() {
  return (
    <Box color="ink.second">Choose the motor or a wheel in the drawing: click it, or walk with Tab.</Box>
  );
}

function WheelPanel({ wheel }: { wheel: Wheel }) {
  const document = useDocument();
  const { live } = useFigures();
  const { set, readOnly } = useEdit();
  const units = useUnits();
  const path = teethPath(wheel.path, wheel.member);
  const stage = at(document, wheel.path) as Stage;
  const flow = live.flows.at(-1)?.stages.find((s) => s.path === wheel.path);
  const loop = live.view.line.loops.find((l) => l.path === wheel.path);
  const length = (si: number) => Object.values(show(units, "length", si)).join(" ");
  const top = live.gauges.find((g) => g.measure === "top_speed");
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
          readOnly={readOnly}
          onChange={(value) => set(path, value)}
        />
      )}
      {flow && (
        <Box fontSize="sm" my="2" color="ink.second">
          The driver turns <Strong>{digits(flow.ratio)}</Strong> times for one turn of the driven. The source
          turns <Strong>{digits(live.view.ratio)}</Strong> times for one turn of the wheel.
        </Box>
      )}
      <Facts
        rows={[
          ["Pitch circle, diameter", length(2 * wheel.pitch_radius)],
          ["Turns", wheel.sense > 0 ? "clockwise" : "anticlockwise"],
          ["Wheel rolls", live.view.line.forwards ? "forwards" : "backwards"],
          ...(loop
            ? ([[loop.assumed ? "Centres, assumed" : "Centres", length(loop.centre_distance)]] as [
                string,
                string,
              ][])
            : []),
          ...(loop
            ? ([
                [
                  "In contact",
                  `${digits(((wheel.member === "driver" ? loop.driver_wrap : loop.driven_wrap) * 180) / Math.PI)}°`,
                ],
              ] as [string, string][])
            : []),
          ...(flow
            ? ([[flow.assumed ? "Loss, assumed" : "Loss", `${digits((1 - flow.efficiency) * 100)} %`]] as [
                string,
                string,
              ][])
            : []),
          ...(live.mark && top
            ? ([
                [
                  "Top speed, against the mark",
                  `${change(units, "speed", top.value, top.mark)} ${units.entry("speed")[units.system].symbol}`,
                ],
              ] as [string, string][])
            : []),
        ]}
      />
      {!live.view.line.forwards && <Backwards />}
      <StageFields stage={stage} path={wheel.path} />
      <StageButtons path={wheel.path} />
    </>
  );
}

/** The tooth count, large; two buttons a thumb can hit; or typed. */
function TeethEditor({
  shown,
  typed,
  path,
  readOnly,
  onChange,
}: {
  /** As drawn; steps start from here while what is typed is no number. */
  shown: number;
  typed: string;
  path: string;
  readOnly: boolean;
  onChange: (value: number | string) => void;
}) {
  const { faults } = useFigures();
  const [text, setText] = useState(typed);
  useEffect(() => setText(typed), [typed]);
  const teeth = /^\d+$/.test(typed) ? Number(typed) : shown;
  const fault = faultAt(faults, path);
  const commit = () => {
    if (text.trim() !== typed) onChange(/^\d+$/.test(text.trim()) ? Number(text) : text.trim());
  };
  return (
    <>
      <Flex align="center" gap="2">
        <Button
          aria-label="One tooth less"
          minW="44px"
          minH="44px"
          disabled={readOnly || teeth <= LEAST_TEETH}
          onClick={() => onChange(teeth - 1)}
        >
          ↓
        </Button>
        <Input
          aria-label="Teeth"
          aria-invalid={fault ? true : undefined}
          inputMode="numeric"
          value={text}
          readOnly={readOnly}
          onChange={(event) => setText(event.target.value)}
          onBlur={commit}
          onKeyDown={(event) => event.key === "Enter" && commit()}
          fontSize="32px"
          fontWeight="700"
          h="48px"
          w="2.9em"
          textAlign="center"
          data-teeth
        />
        <Button
          aria-label="One tooth more"
          minW="44px"
          minH="44px"
          disabled={readOnly}
          onClick={() => onChange(teeth + 1)}
        >
          ↑
        </Button>
        <Box color="ink.second" fontSize="sm">
          teeth
        </Box>
      </Flex>
      {fault && (
        <Box role="alert" fontSize="xs" color="brick">
          {fault.problem}: {fault.remedy}
        </Box>
      )}
    </>
  );
}

function BoxPanel({ path }: { path: string }) {
  const document = useDocument();
  const stage = at(document, path) as Stage | undefined;
  if (!stage) return null;
  return (
    <>
      <Heading as="h2" size="sm" mb="2">
        {STAGE_WORDS[stage.kind]}
      </Heading>
      <StageFields stage={stage} path={path} />
      <StageButtons path={path} />
    </>
  );
}

/** Stages are added after the selected one, or taken out; undo brings them back. */
export function StageButtons({ path }: { path: string }) {
  const document = useDocument();
  const { edit, select, readOnly } = useEdit();
  if (readOnly) return null;
  const isStage = path.includes("stages[");
  return (
    <Flex mt="3" gap="2" wrap="wrap" align="center">
      <select
        className="plain small"
        aria-label="Add a stage after this"
        value=""
        onChange={(event) => {
          const made = addStage(document, path, event.target.value as Stage["kind"]);
          edit(() => made.document);
          select(made.selected);
        }}
      >
        <option value="">Add a stage after this</option>
        {Object.keys(NEW_STAGES).map((kind) => (
          <option key={kind} value={kind}>
            {STAGE_WORDS[kind]}
          </option>
        ))}
      </select>
      {isStage && (
        <Button
          size="xs"
          onClick={() => {
            edit((present) => removeStage(present, path));
            select(null);
          }}
        >
          Remove this stage
        </Button>
      )}
    </Flex>
  );
}

function Backwards() {
  const document = useDocument();
  const { set, readOnly } = useEdit();
  const path = "drive.branches[0].source.reversed";
  return (
    <Box fontSize="sm" my="2" p="2" bg="copper.wash" borderRadius="3px">
      The vehicle would run backwards. Swap two motor leads, turn the motor round, or add one idler.
      {!readOnly && (
        <Button size="xs" mt="1" onClick={() => set(path, at(document, path) ? undefined : true)}>
          Reverse the motor
        </Button>
      )}
    </Box>
  );
}

function Messages({ live }: { live: Live }) {
  if (live.messages.length === 0) return null;
  return (
    <Box mt="3" display="grid" gap="2">
      {live.messages.map((message) => (
        <Flex key={message.text} gap="2" fontSize="sm" role="note">
          <Box pt="1">
            <StandingMark standing="misses" />
          </Box>
          {message.text}
        </Flex>
      ))}
    </Box>
  );
}

export function Facts({ rows }: { rows: [string, string][] }) {
  return (
    <Box as="dl" fontSize="sm">
      {rows.map(([name, value]) => (
        <Flex key={name} justify="space-between" gap="3" py="5px" borderTopWidth="1px" borderColor="line">
          <dt>{name}</dt>
          <Box as="dd" fontFamily="mono" textAlign="right" whiteSpace="nowrap">
            {value}
          </Box>
        </Flex>
      ))}
    </Box>
  );
}

function Strong({ children }: { children: React.ReactNode }) {
  return (
    <Box as="strong" fontFamily="mono" color="ink">
      {children}
    </Box>
  );
}
