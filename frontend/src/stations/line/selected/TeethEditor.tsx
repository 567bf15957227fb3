import { Box, Button, Flex, Input } from "@chakra-ui/react";
import type { Fit } from "../../../api/client";
import { faultAt, useEdit, useFigures } from "../../../document/context";
import { FaultText } from "../../../ui/fields/FaultText";
import { useTyped } from "../../../ui/fields/useTyped";

interface Props {
  /** Parts of the bin that fit here. */
  fits: Fit[];
  /** As drawn; steps start from here while what is typed is no number. */
  shown: number;
  typed: string;
  /** Where stepping down ends; what is typed below it the core refuses in its own words. */
  least: number;
  path: string;
  /** Take one of them. */
  onTake: (fit: Fit) => void;
}

/** The tooth count, large; two buttons a thumb can hit; or typed. */
export function TeethEditor({ shown, typed, least, path, fits, onTake }: Props) {
  const { faults } = useFigures();
  const { set, readOnly } = useEdit();
  const { text, type, taken } = useTyped(typed);
  const teeth = /^\d+$/.test(typed) ? Number(typed) : shown;
  const fault = faultAt(faults, path);
  const change = (value: number | string) => set(path, value);
  const commit = () => {
    taken();
    if (text.trim() !== typed) change(/^\d+$/.test(text.trim()) ? Number(text) : text.trim());
  };
  return (
    <>
      <Flex align="center" gap="2">
        <Button
          aria-label="One tooth less"
          minW="44px"
          minH="44px"
          disabled={readOnly || teeth <= least}
          onClick={() => change(teeth - 1)}
        >
          ↓
        </Button>
        <Input
          aria-label="Teeth"
          aria-invalid={fault ? true : undefined}
          aria-describedby={fault ? "teeth-fault" : undefined}
          inputMode="numeric"
          value={text}
          readOnly={readOnly}
          onChange={(event) => type(event.target.value)}
          onBlur={commit}
          onKeyDown={(event) => event.key === "Enter" && commit()}
          fontSize="32px"
          fontWeight="700"
          h="48px"
          w="2.9em"
          textAlign="center"
          data-teeth
        />
        <Button
          aria-label="One tooth more"
          minW="44px"
          minH="44px"
          disabled={readOnly}
          onClick={() => change(teeth + 1)}
        >
          ↑
        </Button>
        <Box color="ink.second" fontSize="sm">
          teeth
        </Box>
      </Flex>
      {fault && <FaultText id="teeth-fault" fault={fault} />}
      {fits.length > 0 && !readOnly && <FromBin fits={fits} teeth={teeth} onTake={onTake} />}
    </>
  );
}

/** What the bin has of this tooth size; a count that it does not have may be used all the same. */
function FromBin({ fits, teeth, onTake }: { fits: Fit[]; teeth: number; onTake: (fit: Fit) => void }) {
  const here = fits.find((fit) => fit.size === teeth);
  const take = (id: string) => {
    const fit = fits.find((fit) => fit.id === id);
    if (fit) onTake(fit);
  };
  return (
    <Flex align="center" gap="2" mt="1" fontSize="sm" color="ink.second">
      <select
        className="plain small"
        aria-label="From the bin"
        value={here?.id ?? ""}
        onChange={(event) => take(event.target.value)}
      >
        {!here && <option value="">not in the bin</option>}
        {fits.map((fit) => (
          <option key={fit.id} value={fit.id}>
            {fit.size}
            {fits.some((entry) => entry.size === fit.size && entry.id !== fit.id) ? `, ${fit.name}` : ""}
            {fit.owned > 0 ? `, ${fit.owned} owned` : ""}
          </option>
        ))}
      </select>
      in the bin
    </Flex>
  );
}
