/** What can be done with a vehicle from any of its stations. */
import { useNavigate } from "react-router";
import type { Asked } from "../../document/context";
import { saveDesignFile } from "../../document/files";
import { useCommands } from "../../ui/commands/commands";
import { useUnits } from "../../ui/fields/units";
import { gaugeLabel } from "../../ui/readout/Readout";
import { STATION_NAMES } from "../../words/stations";
import type { Work } from "./useWork";

export function useWorkCommands(work: Work, vehicle: string, ask: (question: Asked) => void): void {
  const navigate = useNavigate();
  const units = useUnits();
  const group = work.document.name || "This vehicle";
  const { edit, dispatch, live } = work;
  useCommands([
    ...Object.entries(STATION_NAMES).map(([key, words]) => ({
      words,
      group: `station of ${group}`,
      run: () => navigate(`/vehicles/${vehicle}/${key}`),
    })),
    { words: "Undo", group, keys: "Ctrl Z", run: () => dispatch({ type: "undo" }) },
    { words: "Redo", group, keys: "Ctrl Shift Z", run: () => dispatch({ type: "redo" }) },
    { words: "Set the mark", group, run: edit.setMark },
    { words: "Export as a design file", group, run: () => saveDesignFile(edit.present()) },
    {
      words: "Sheet on one page, as PDF",
      group,
      run: () => window.open(`/api/vehicles/${vehicle}/sheet/?system=${units.system}`, "_blank"),
    },
    ...(live?.gauges ?? []).map((gauge) => ({
      words: `Show the working of ${gaugeLabel(gauge, units).toLowerCase()}`,
      group,
      run: () => ask({ measure: gauge.measure, at: gauge.at }),
    })),
  ]);
}
