import { Box } from "@chakra-ui/react";
import { useMemo, useState } from "react";
import { useFigures } from "../../document/context";
import { QuantityField } from "../../ui/fields/QuantityField";
import { show, useUnits } from "../../ui/fields/units";
import { useFinding } from "../shared/useFinding";

/** For those who know only what they clocked before: the speed by proportion of the reductions, beside the computed one. */
export function Clocked() {
  const { live } = useFigures();
  const units = useUnits();
  const [clocked, setClocked] = useState<string | undefined>();
  const aid = units.aids.find((a) => a.name === "clocked_before");
  const then = live.mark?.ratio;
  const now = live.view.ratio;
  const given = useMemo(
    (): Record<string, string> => ({ v_1: clocked ?? "", G_1: String(then ?? ""), G_2: String(now) }),
    [clocked, then, now],
  );
  if (!aid || then === undefined) return null;
  return <Field {...{ aid, given, clocked, setClocked }} />;
}

interface FieldProps {
  aid: Parameters<typeof useFinding>[0];
  given: Record<string, string>;
  clocked: string | undefined;
  setClocked: (text: string | undefined) => void;
}

function Field({ aid, given, clocked, setClocked }: FieldProps) {
  const units = useUnits();
  const { finding, faults } = useFinding(aid, given);
  return (
    <Box mb="3" data-clocked>
      <QuantityField
        label="Clocked with the mark"
        dimension="speed"
        value={clocked}
        fault={clocked ? faults.find((f) => f.path === "v_1") : undefined}
        optional
        onChange={setClocked}
      />
      {finding && (
        <Box fontSize="sm" role="status">
          By proportion about{" "}
          <Box as="strong" fontFamily="mono">
            {Object.values(show(units, "speed", finding.value)).join(" ")}
          </Box>{" "}
          now.
        </Box>
      )}
    </Box>
  );
}
