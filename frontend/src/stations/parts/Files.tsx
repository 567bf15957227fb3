import { Box, Button } from "@chakra-ui/react";
import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { answer, api, troubleText } from "../../api/client";
import { usePlace } from "../../document/context";
import { base64 } from "../../document/files";
import { DownloadLink } from "../../ui/DownloadLink";
import { FileInput } from "../../ui/fields/FileInput";
import { clockNow } from "../../ui/when";
import { counted } from "../../words/counted";

/** The list as a file, and states and prices back from one; the order list of several vehicles. */
export function Files({ vehicle, readOnly }: { vehicle: string; readOnly: boolean }) {
  const { workshop } = usePlace();
  const queries = useQueryClient();
  const [words, setWords] = useState("");
  const open = async (file: File) => {
    try {
      const data = await base64(file);
      const request = {
        params: { path: { vehicle }, query: { now: clockNow() } },
        body: { name: file.name, data },
      };
      const read = await answer(api.POST("/api/vehicles/{vehicle}/parts-list/file/", request));
      void queries.invalidateQueries({ queryKey: ["pulse", vehicle] });
      const faults = read.faults.map((f) => `row ${f.row}, ${f.column}: ${f.problem}, ${f.remedy}`);
      setWords(
        faults.length
          ? `Nothing was taken. ${faults.join("; ")}`
          : `${counted(read.changed, "line")} changed.`,
      );
    } catch (error) {
      setWords(troubleText(error));
    }
  };
  return (
    <>
      {["csv", "xlsx"].map((suffix) => (
        <Button key={suffix} size="xs" asChild>
          <DownloadLink
            href={`/api/vehicles/${vehicle}/parts-list/export/${suffix}/`}
          >{`Save as ${suffix.toUpperCase()}`}</DownloadLink>
        </Button>
      ))}
      {!readOnly && (
        <label className="file small">
          Take states and prices from a file
          <FileInput accept=".csv,.xlsx" onPick={(file) => void open(file)} />
        </label>
      )}
      <Button size="xs" asChild>
        <Link to={`/workshops/${workshop}/orders`}>Order list of the bench</Link>
      </Button>
      {words && (
        <Box role="status" fontSize="sm" w="100%" data-file-words>
          {words}
        </Box>
      )}
    </>
  );
}
