import { Box, Button, Flex } from "@chakra-ui/react";
import { useRef, useState } from "react";
import { type PlanShaft, type Template, troubleText } from "../../api/client";
import { useDocument, usePlace } from "../../document/context";
import { saveBase64 } from "../../document/files";
import { type Adapter, mountingOf } from "../../document/mounting";
import { ChoiceField } from "../../ui/fields/ChoiceField";
import { fetchTemplate, told } from "./template";

const SHEETS: [string, string][] = [
  ["a4", "A4"],
  ["letter", "Letter"],
];

/** The plates of an adapter between flanges: the path of each, and what it is called. */
function platesOf(adapter: Adapter, i: number): [string, string][] {
  return Array.from({ length: adapter.plates ?? 1 }, (_, j) => [
    `fit.adapters[${i}].plates[${j}]`,
    `${adapter.name || "adapter"}, plate ${j + 1}`,
  ]);
}

/** Drilling templates at full size, of the plate or of an adapter for the chosen shaft. */
export function Templates({ shaft, behind }: { shaft: PlanShaft | null; behind: string }) {
  const { workshop } = usePlace();
  const document = useDocument();
  const [of, setOf] = useState("plate");
  const [sheet, setSheet] = useState("a4");
  const [made, setMade] = useState<Template | null>(null);
  const [drawing, setDrawing] = useState("");
  const [trouble, setTrouble] = useState("");
  const aborter = useRef<AbortController>(undefined);
  const save = async (kind: string) => {
    aborter.current?.abort();
    const mine = new AbortController();
    aborter.current = mine;
    setTrouble("");
    setMade(null);
    setDrawing(kind);
    const path = of === "plate" ? "" : of === "shaft" ? (shaft?.path ?? "") : of;
    try {
      const template = await fetchTemplate(
        workshop,
        kind,
        { document, sheet, shaft: path, behind },
        mine.signal,
      );
      setMade(template);
      // A browser takes a file as asked for only shortly after the click; later it has to be asked for again.
      if (navigator.userActivation.isActive) saveBase64(template);
    } catch (error) {
      if (mine.signal.aborted) return;
      setTrouble(troubleText(error));
    }
    setDrawing("");
  };
  const cancel = () => {
    aborter.current?.abort();
    setDrawing("");
  };
  return (
    <Box data-templates>
      <Flex gap="3" align="end" wrap="wrap">
        <ChoiceField
          label="template of"
          value={of}
          options={[
            ["plate", "the whole plate"],
            ["shaft", `an adapter for the ${shaft?.name ?? "chosen shaft"}`],
            ...(mountingOf(document).adapters ?? []).flatMap(platesOf),
          ]}
          readOnly={false}
          onChange={setOf}
        />
        <ChoiceField label="sheets" value={sheet} options={SHEETS} readOnly={false} onChange={setSheet} />
        {["pdf", "svg", "dxf"].map((kind) => (
          <Button key={kind} size="sm" onClick={() => void save(kind)} data-template={kind}>
            Save {kind.toUpperCase()}
          </Button>
        ))}
      </Flex>
      <Flex mt="2" gap="3" align="center" minH="8" role="status">
        {drawing && (
          <>
            <span>Drawing the {drawing.toUpperCase()} …</span>
            <Button size="xs" variant="outline" onClick={cancel}>
              Cancel
            </Button>
          </>
        )}
        {made && (
          <>
            <span data-made>{told(made)}</span>
            <Button size="xs" variant="outline" onClick={() => saveBase64(made)} data-save={made.name}>
              Save
            </Button>
          </>
        )}
      </Flex>
      {trouble && (
        <Box role="alert" color="brick" mt="2">
          {trouble}
        </Box>
      )}
      <Box fontSize="13px" color="ink.second" mt="2" maxW="70ch">
        Print at full size (100 %, nothing fitted to the page) and measure the scale bar before you drill:
        printers stretch. Eye protection on, the plate held in a vice or clamped; deburr, and keep hands and
        gloves off turning drills.
      </Box>
    </Box>
  );
}
