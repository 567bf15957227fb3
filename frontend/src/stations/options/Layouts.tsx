import { Box, Button, Flex, Input } from "@chakra-ui/react";
import { useState } from "react";
import type { Picture } from "../../api/client";
import type { PartDocument } from "../../document/bin/bin";
import { MiniLine } from "../../drawing/MiniLine";
import { useKinds } from "../../ui/fields/units";
import { whole } from "../../ui/money";
import { parseCounts } from "../../words/ranges";
import { type StageChoice, sameLayout, toggled } from "./request";

interface Props {
  layouts: StageChoice[][];
  suggested: Picture[];
  pictures: Picture[];
  combinations: number[];
  parts: PartDocument[];
  onChange: (layouts: StageChoice[][]) => void;
}

const stagesOf = (picture: Picture) => picture.layout.stages as StageChoice[];
const kindsOf = (stages: StageChoice[]) => stages.map((stage) => stage.kind).join();

/** Layouts as small pictures: those chosen, those one step from the design's, and one's own. */
export function Layouts({ layouts, suggested, pictures, combinations, parts, onChange }: Props) {
  const chosenKinds = new Set(layouts.map(kindsOf));
  const others = suggested.filter((p) => !chosenKinds.has(kindsOf(stagesOf(p))));
  const [opened, setOpened] = useState<number | null>(null);
  return (
    <Box data-layouts>
      <Box display="grid" gridTemplateColumns="1fr 1fr" gap="6px">
        {layouts.map((stages, i) => (
          <Tile
            key={JSON.stringify(stages)}
            picture={pictures[i]}
            count={combinations[i]}
            chosen
            onToggle={() => onChange(toggled(layouts, stages))}
            onOpen={() => setOpened(opened === i ? null : i)}
            open={opened === i}
          />
        ))}
        {others.map((picture) => (
          <Tile
            key={JSON.stringify(picture.layout)}
            picture={picture}
            chosen={false}
            onToggle={() => onChange(toggled(layouts, stagesOf(picture)))}
          />
        ))}
      </Box>
      {opened !== null && layouts[opened] && (
        <Narrow
          key={opened}
          stages={layouts[opened]}
          parts={parts}
          onChange={(stages) => onChange(layouts.map((entry, i) => (i === opened ? stages : entry)))}
        />
      )}
      <Compose
        onAdd={(stages) => !layouts.some((l) => sameLayout(l, stages)) && onChange([...layouts, stages])}
      />
    </Box>
  );
}

interface TileProps {
  picture: Picture | undefined;
  chosen: boolean;
  count?: number;
  open?: boolean;
  onToggle: () => void;
  onOpen?: () => void;
}

function Tile({ picture, chosen, count, open, onToggle, onOpen }: TileProps) {
  return (
    <Box
      borderWidth="1px"
      borderRadius="3px"
      borderColor={chosen ? "spruce" : "line"}
      bg={chosen ? "spruce.wash" : "panel"}
      p="1"
      minW="0"
    >
      <button
        type="button"
        aria-pressed={chosen}
        onClick={onToggle}
        style={{ width: "100%", cursor: "pointer", textAlign: "left" }}
        data-layout={picture?.words}
      >
        <Box h="42px" overflow="hidden" opacity={chosen ? 1 : 0.75}>
          {picture?.line && <MiniLine line={picture.line} name={picture.words} />}
        </Box>
        <Box fontSize="12.5px" lineHeight="1.25">
          {picture?.words ?? "…"}
        </Box>
      </button>
      {chosen && (
        <Flex justify="space-between" fontSize="12px" color="ink.second" fontFamily="mono">
          <span>{count === undefined ? "" : whole(count)}</span>
          <button type="button" className="quiet" aria-expanded={open} onClick={onOpen}>
            narrow
          </button>
        </Flex>
      )}
    </Box>
  );
}

/** Which of the bin's parts a stage may take, by teeth, and between which ratios. */
function Narrow({
  stages,
  parts,
  onChange,
}: {
  stages: StageChoice[];
  parts: PartDocument[];
  onChange: (stages: StageChoice[]) => void;
}) {
  const kinds = useKinds();
  const put = (i: number, stage: StageChoice) =>
    onChange(stages.map((entry, k) => (k === i ? stage : entry)));
  return (
    <Box borderWidth="1px" borderColor="line" borderRadius="3px" bg="panel" p="2" mt="2" fontSize="sm">
      {stages.map((stage, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: stages are told by their place
        <Box key={i} mb="1">
          <b>{kinds.of(stage.kind)?.short ?? "As it is"}</b>
          {kinds.of(stage.kind)?.toothed && (
            <Flex gap="1" wrap="wrap">
              {(["driver", "driven"] as const).map((end) => (
                <TeethFilter
                  key={end}
                  label={`${end} teeth, stage ${i + 1}`}
                  placeholder={`${end}, any`}
                  value={teethOf(stage[end], parts)}
                  onChange={(text) => put(i, withTeeth(stage, end, text, kinds.of(stage.kind)?.part, parts))}
                />
              ))}
            </Flex>
          )}
          {stage.kind !== "fixed" && stage.kind !== "gearbox" && (
            <RatioFilter
              label={`ratio, stage ${i + 1}`}
              value={stage.ratio?.join("-") ?? ""}
              onChange={(ratio) => put(i, withRatio(stage, ratio))}
            />
          )}
        </Box>
      ))}
    </Box>
  );
}

function TeethFilter({
  label,
  placeholder,
  value,
  onChange,
}: {
  label: string;
  placeholder: string;
  value: string;
  onChange: (text: string) => void;
}) {
  const [text, setText] = useState(value);
  return (
    <Input
      size="xs"
      w="8.5em"
      aria-label={label}
      placeholder={placeholder}
      value={text}
      onChange={(event) => setText(event.target.value)}
      onBlur={() => onChange(text)}
      onKeyDown={(event) => event.key === "Enter" && onChange(text)}
    />
  );
}

function RatioFilter({
  label,
  value,
  onChange,
}: {
  label: string;
  value: string;
  onChange: (ratio: [number, number] | null) => void;
}) {
  const [text, setText] = useState(value);
  const commit = () => {
    const match = /^\s*([\d.]+)\s*[-–]\s*([\d.]+)\s*$/.exec(text);
    if (match) onChange([Number(match[1]), Number(match[2])]);
    else if (!text.trim()) onChange(null);
  };
  return (
    <Input
      size="xs"
      mt="1"
      w="17.3em"
      aria-label={label}
      placeholder="ratio, such as 0.5-6"
      value={text}
      onChange={(event) => setText(event.target.value)}
      onBlur={commit}
      onKeyDown={(event) => event.key === "Enter" && commit()}
    />
  );
}

/** The tooth counts of chosen parts as they are typed; empty where any may be taken. */
function teethOf(ids: string[] | undefined, parts: PartDocument[]): string {
  const teeth = parts.filter((part) => ids?.includes(part.id)).map((part) => Number(part.teeth));
  return [...new Set(teeth)].sort((a, b) => a - b).join(" ");
}

function withTeeth(
  stage: StageChoice,
  end: "driver" | "driven",
  text: string,
  part: string | undefined,
  parts: PartDocument[],
): StageChoice {
  const { [end]: _, ...rest } = stage;
  const counts = new Set(parseCounts(text));
  if (counts.size === 0) return rest;
  const ids = parts.filter((p) => p.kind === part && counts.has(Number(p.teeth))).map((p) => p.id);
  return { ...rest, [end]: ids };
}

function withRatio({ ratio: _, ...stage }: StageChoice, ratio: [number, number] | null): StageChoice {
  return ratio ? { ...stage, ratio } : stage;
}

/** A layout put together kind by kind, in the order of power. */
function Compose({ onAdd }: { onAdd: (stages: StageChoice[]) => void }) {
  const kinds = useKinds();
  const [made, setMade] = useState<string[]>([]);
  return (
    <Box mt="2" fontSize="sm">
      <Flex gap="1" wrap="wrap" align="center">
        <Box color="ink.second">Or compose:</Box>
        {kinds.list
          .filter(({ searched }) => searched)
          .map(({ kind, short }) => (
            <Button key={kind} size="xs" onClick={() => setMade([...made, kind])}>
              + {short}
            </Button>
          ))}
      </Flex>
      {made.length > 0 && (
        <Flex gap="2" mt="1" align="center" wrap="wrap">
          <Box fontFamily="mono">{made.map((kind) => kinds.of(kind)?.short).join(" → ")}</Box>
          <Button
            size="xs"
            variant="solid"
            onClick={() => {
              onAdd(made.map((kind) => ({ kind })));
              setMade([]);
            }}
          >
            Use it
          </Button>
          <Button size="xs" variant="ghost" onClick={() => setMade(made.slice(0, -1))}>
            Take the last away
          </Button>
        </Flex>
      )}
    </Box>
  );
}
