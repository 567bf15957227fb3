import { Box } from "@chakra-ui/react";
import { faultAt, useDocument, useEdit, useFigures } from "../../document/context";
import { at } from "../../document/document";
import { Field } from "../../document/Field";
import { FaultText } from "../../ui/fields/FaultText";

export const DRIVEN = { all: "all wheels", rear: "rear wheels", front: "front wheels" } as const;
const PATH = "vehicle.driven";

/** Which wheels are driven; the share of the weight on them is asked for where the lengths are not given. */
export function DrivenAxle() {
  const document = useDocument();
  const { faults } = useFigures();
  const { set, readOnly } = useEdit();
  const fault = faultAt(faults, PATH);
  const { wheelbase, cg_ahead_of_rear, cg_height } = document.vehicle;
  const lengths = [wheelbase, cg_ahead_of_rear, cg_height].every((length) => length !== undefined);
  return (
    <>
      <Box>
        <Box
          as="label"
          {...{ htmlFor: "driven-axle" }}
          display="block"
          fontSize="sm"
          color="ink.second"
          lineHeight="1.3"
        >
          Driven
        </Box>
        <select
          id="driven-axle"
          className="plain"
          disabled={readOnly}
          value={String(at(document, PATH))}
          onChange={(event) => set(PATH, event.target.value)}
        >
          {Object.entries(DRIVEN).map(([key, name]) => (
            <option key={key} value={key}>
              {name}
            </option>
          ))}
        </select>
        {fault && <FaultText id="driven-axle-fault" fault={fault} />}
      </Box>
      {(!lengths || document.vehicle.driven_share !== undefined) && (
        <Field
          path="vehicle.driven_share"
          label="Share of the weight on driven wheels"
          dimension="ratio"
          optional
        />
      )}
    </>
  );
}
