import { Box, Input } from "@chakra-ui/react";
import { useId } from "react";
import { useEdit, useFigures } from "../../../document/context";
import { branchPath } from "../../../document/stages";
import { digits } from "../../../ui/fields/units";
import { PractiseThis } from "../../../ui/PractiseThis";

/** The ratio of a stage in words, in both directions, as a fraction and in numbers; and of the whole line. */
export function RatioWords({ path }: { path: string }) {
  const { live } = useFigures();
  const view = live.ratios.find((r) => r.path === path);
  if (!view) return null;
  const overall = live.ratios.filter((r) => r.path === branchPath(path));
  return (
    <Box fontSize="sm" my="2" color="ink.second">
      <Box data-ratio>
        {view.terms && (
          <>
            <Figure>{`${view.terms[0]} : ${view.terms[1]}`}</Figure> ={" "}
          </>
        )}
        <Figure>{`${digits(view.ratio)} : 1`}</Figure>. The driver turns <Figure>{digits(view.ratio)}</Figure>{" "}
        times for one turn of the driven, the driven <Figure>{digits(1 / view.ratio)}</Figure> times for one
        of the driver.
      </Box>
      {overall.map((one) => (
        <Box key={one.gear} mt="1">
          {overall.length > 1 && `Gear ${one.gear + 1}: `}The source turns{" "}
          <Figure>{digits(one.ratio)}</Figure>
          {one.terms && overall.length === 1 && (
            <>
              {" "}
              = <Figure>{`${one.terms[0]}/${one.terms[1]}`}</Figure>
            </>
          )}{" "}
          times for one turn of the wheel.
        </Box>
      ))}
      {view.remark && (
        <Box mt="1" data-remark>
          {view.remark}
        </Box>
      )}
      <Told key={path} />
      <PractiseThis idea="ratio" />
    </Box>
  );
}

/** A ratio that was read or heard somewhere, held against the teeth; it is asked about and not kept. */
function Told() {
  const { live, wish } = useFigures();
  const edit = useEdit();
  const id = useId();
  return (
    <Box mt="1">
      <label htmlFor={id}>Told another ratio? </label>
      <Input
        id={id}
        size="xs"
        w="5.5em"
        inputMode="decimal"
        placeholder="4.2"
        onChange={(event) => {
          const told = Number(event.target.value.replace(",", "."));
          edit.wish({ told: told >= 1e-6 && told <= 1e6 ? told : undefined });
        }}
      />
      {wish.told !== undefined && live.told && (
        <Box color="ink" role="status" data-told>
          {live.told}
        </Box>
      )}
    </Box>
  );
}

function Figure({ children }: { children: React.ReactNode }) {
  return (
    <Box as="strong" fontFamily="mono" color="ink" whiteSpace="nowrap">
      {children}
    </Box>
  );
}
