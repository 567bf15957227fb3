import { Box } from "@chakra-ui/react";
import type { OnPlate } from "../../api/client";
import { useUnits } from "../../ui/fields/units";
import { MOUNT_WORDS } from "../../words/measures";
import { lengthText } from "./lengths";

/** The plan in words and numbers. */
export function PlanTable({ fit }: { fit: OnPlate }) {
  const units = useUnits();
  const text = (m: number) => lengthText(units, m);
  return (
    <Box p="3" data-plan-table>
      <Box as="table" className="rows" w="100%">
        <thead>
          <tr>
            {["shaft", "mounted", "x", "y", "carries"].map((head) => (
              <th key={head} scope="col">
                {head}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {fit.plan.shafts.map((shaft) => (
            <tr key={shaft.path}>
              <th scope="row">{shaft.name}</th>
              <td>{MOUNT_WORDS[shaft.mount]}</td>
              <td>{text(shaft.x)}</td>
              <td>{text(shaft.y)}</td>
              <td>
                {shaft.wheels
                  .flatMap((i) => fit.plan.wheels[i] ?? [])
                  .map((w, i) => `${shaft.carries[i]}, ${text(2 * w.outer_radius)} across`)
                  .join("; ")}
              </td>
            </tr>
          ))}
        </tbody>
      </Box>
    </Box>
  );
}
