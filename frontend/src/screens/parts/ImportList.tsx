import { Box, Button, Flex } from "@chakra-ui/react";
import { useMutation } from "@tanstack/react-query";
import { useRef } from "react";
import { answer, api, type PartList, troubleText } from "../../api/client";
import { type Bin, type PartDocument, partOf } from "../../document/bin/bin";
import type { PartKind } from "../../document/bin/cells";
import { base64 } from "../../document/files";
import { FileInput } from "../../ui/fields/FileInput";
import { counted } from "../../words/counted";

interface Props {
  workshop: string;
  kind: PartKind;
  state: Bin;
  onAdd: (parts: PartDocument[]) => void;
}

/** A CSV or XLSX file: every fault is told before anything is written; then all of it is, or nothing. */
export function ImportList({ workshop, kind, state, onAdd }: Props) {
  const file = useRef<HTMLInputElement>(null);
  const read = useMutation({
    mutationFn: async (chosen: File): Promise<PartList & { name: string }> => {
      const reply = await answer(
        api.POST("/api/workshops/{workshop}/parts/file/", {
          params: { path: { workshop } },
          body: { name: chosen.name, data: await base64(chosen), kind: kind.kind as never },
        }),
      );
      return { ...reply, name: chosen.name };
    },
  });
  return (
    <Box bg="panel" borderWidth="1px" borderColor="line" borderRadius="3px" p="3" data-import>
      <Box>
        CSV or XLSX with the names of the columns in the first row, as they stand over the table here; units
        in brackets, or in each cell. Rows without a kind are taken for {kind.many.toLowerCase()}. A saved
        list is the best pattern. Rows with the id of a part change that part.
      </Box>
      <Flex gap="3" mt="2" align="center" wrap="wrap">
        <Button onClick={() => file.current?.click()}>Choose a file</Button>
        <FileInput
          ref={file}
          accept=".csv,.xlsx,text/csv"
          hidden
          aria-label="List of parts"
          onPick={(file) => read.mutate(file)}
        />
        {read.data && <Verdict found={read.data} state={state} onAdd={onAdd} />}
      </Flex>
      {read.isError && (
        <Box role="alert" color="brick" mt="2">
          {troubleText(read.error)}
        </Box>
      )}
      {read.data && read.data.faults.length > 0 && <FaultTable faults={read.data.faults} first="row" />}
    </Box>
  );
}

function Verdict({
  found,
  state,
  onAdd,
}: {
  found: PartList & { name: string };
  state: Bin;
  onAdd: Props["onAdd"];
}) {
  const parts = found.parts as unknown as PartDocument[];
  const added = parts.filter((part) => partOf(state, part.id) === null).length;
  if (found.faults.length > 0) {
    return (
      <Box role="status">
        {found.name}: {counted(found.faults.length, "fault")}. Nothing was written; mend the file and choose
        it again.
      </Box>
    );
  }
  return (
    <>
      <Box role="status">
        {found.name}: {added} new, {parts.length - added} already in the bin.
      </Box>
      <Button variant="solid" disabled={parts.length === 0} onClick={() => onAdd(parts)}>
        Put them into the bin
      </Button>
    </>
  );
}

/** What is wrong where, and what would be right. */
export function FaultTable({ faults, first }: { faults: PartList["faults"]; first: "row" | "line" }) {
  const sheets = faults.some((fault) => fault.sheet);
  return (
    <Box maxH="260px" overflow="auto" mt="2" tabIndex={0} role="region" aria-label="Faults">
      <table className="working rows faults" data-faults>
        <thead>
          <tr>
            {sheets && <th scope="col">sheet</th>}
            <th scope="col">{first}</th>
            {first === "row" && <th scope="col">column</th>}
            <th scope="col">what is wrong</th>
            <th scope="col">what would be right</th>
          </tr>
        </thead>
        <tbody>
          {faults.map((fault) => (
            <tr key={`${fault.sheet} ${fault.row} ${fault.column} ${fault.problem}`}>
              {sheets && <td>{fault.sheet}</td>}
              <td>{fault.row}</td>
              {first === "row" && <td>{fault.column}</td>}
              <td>{fault.problem}</td>
              <td>{fault.remedy}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </Box>
  );
}
