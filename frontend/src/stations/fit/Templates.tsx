import { Box, Button, Flex } from "@chakra-ui/react";
import { useState } from "react";
import type { PlanShaft } from "../../api/client";
import { useDocument, usePlace } from "../../document/context";
import { saveBlob } from "../../document/files";
import { ChoiceField } from "../../ui/fields/ChoiceField";
import { fetchTemplate } from "./template";

const SHEETS: [string, string][] = [
  ["a4", "A4"],
  ["letter", "Letter"],
];

/** Drilling templates at full size, of the plate or of an adapter for the chosen shaft. */
export function Templates({ shaft }: { shaft: PlanShaft | null }) {
  const { workshop } = usePlace();
  const document = useDocument();
  const [of, setOf] = useState("plate");
  const [sheet, setSheet] = useState("a4");
  const [trouble, setTrouble] = useState("");
  const save = async (suffix: string) => {
    setTrouble("");
    try {
      const { name, blob } = await fetchTemplate(workshop, suffix, {
        document,
        sheet,
        shaft: of === "plate" ? "" : (shaft?.path ?? ""),
      });
      saveBlob(name, blob);
    } catch (error) {
      setTrouble(error instanceof Error ? error.message : "The template could not be made; try again.");
    }
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
          ]}
          readOnly={false}
          onChange={setOf}
        />
        <ChoiceField label="sheets" value={sheet} options={SHEETS} readOnly={false} onChange={setSheet} />
        {["pdf", "svg", "dxf"].map((suffix) => (
          <Button key={suffix} size="sm" onClick={() => void save(suffix)} data-template={suffix}>
            Save {suffix.toUpperCase()}
          </Button>
        ))}
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
