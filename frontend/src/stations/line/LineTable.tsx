import { Box } from "@chakra-ui/react";
import type { Flow, Live, Row } from "../../api/client";
import { shaftName } from "../../drawing/Figures";
import { digits, ratioText, show, useUnits } from "../../ui/fields/units";

/** The drawing as text: every shaft, and every stage between two of them. */
export function LineTable({ live, flow }: { live: Live; flow: Flow | undefined }) {
  const units = useUnits();
  const { rows } = live.view.line;
  const branches = Math.max(1, ...rows.map((row) => row.sources.length));
  const text = (dimension: string, si: number | undefined) =>
    si === undefined ? "–" : Object.values(show(units, dimension, si)).join(" ");
  const shafts = rows.flatMap((row) => row.shafts.filter((s) => !s.carried).map((shaft) => ({ shaft, row })));
  const name = (index: number | undefined) => {
    const match = shafts.find((s) => s.shaft.index === index);
    return match ? shaftName(match.shaft, match.row, branches) : "";
  };
  return (
    <Box
      overflowX="auto"
      px="3"
      pb="2"
      tabIndex={0}
      role="region"
      aria-label="The drawing as a table"
      data-line-table
    >
      <table className="working">
        <caption className="visually-hidden">Shafts of the line</caption>
        <thead>
          <tr>
            {["Shaft", "Turns", "Speed", "Torque", "Power"].map((head) => (
              <th key={head} scope="col">
                {head}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {shafts.map(({ shaft, row }) => {
            const state = flow?.shafts.find((s) => s.shaft === shaft.index);
            return (
              <tr key={shaft.index}>
                <th scope="row">{shaftName(shaft, row, branches)}</th>
                <td>{rotationWords(shaft)}</td>
                <td>{text("angular speed", state?.speed)}</td>
                <td>{text("torque", state?.torque)}</td>
                <td>{text("power", state?.power)}</td>
              </tr>
            );
          })}
        </tbody>
      </table>
      <table className="working">
        <caption className="visually-hidden">Stages of the line</caption>
        <thead>
          <tr>
            {["Stage", "From", "To", "Wheels", "Ratio", "Efficiency", "Loss"].map((head) => (
              <th key={head} scope="col">
                {head}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {flow?.stages.map((stage) => (
            <tr key={stage.path}>
              <th scope="row">{stage.title}</th>
              <td>{name(stage.driver_shaft)}</td>
              <td>{name(stage.driven_shaft)}</td>
              <td>{wheelWords(rows, stage.path)}</td>
              <td>{ratioText(units, stage.ratio)}</td>
              <td>{`${digits(100 * stage.efficiency)} %${stage.assumed ? ", assumed" : ""}`}</td>
              <td>{text("power", stage.loss)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </Box>
  );
}

function rotationWords(shaft: Row["shafts"][number]): string {
  return shaft.rotation_known ? (shaft.rotation > 0 ? "clockwise" : "anticlockwise") : "as mounted";
}

function wheelWords(rows: Row[], path: string): string {
  const wheels = rows.flatMap((row) => row.wheels).filter((w) => w.path === path);
  if (wheels.length === 0)
    return (
      rows
        .flatMap((row) => row.boxes)
        .find((b) => b.path === path)
        ?.steps.join(", ") ?? ""
    );
  return wheels.map((w) => `${w.member} ${w.teeth === null ? w.noun : w.teeth}`).join(", ");
}
