import { Box, Flex, Input } from "@chakra-ui/react";
import type { PartDocument } from "../../document/bin/bin";
import { usePartName } from "../../document/bin/usePartName";
import type { Heads, Wishes } from "./request";

interface Props {
  wishes: Wishes;
  parts: PartDocument[];
  onChange: (part: Partial<Wishes>) => void;
}

const HEADS: { key: keyof Heads; words: string; kinds: string[] }[] = [
  { key: "sources", words: "Motors and engines", kinds: ["motor", "engine"] },
  { key: "supplies", words: "Batteries and panels", kinds: ["battery", "panel"] },
  { key: "wheels", words: "Wheels", kinds: ["wheel"] },
];

type Check = "ownedOnly" | "lengthsAtHand" | "onPlate" | "standing" | "masses";

const CHECKS: { key: Check; words: string; more?: string }[] = [
  { key: "ownedOnly", words: "only what is owned" },
  { key: "lengthsAtHand", words: "only belts and chains at hand" },
  {
    key: "onPlate",
    words: "only what goes on this plate",
    more: "on whichever holes: an option brings the places of its shafts along",
  },
  {
    key: "standing",
    words: "only what goes where the shafts stand",
    more: "where the shafts stand now, or can be set in their slots",
  },
  { key: "masses", words: "add the parts' mass to the vehicle" },
];

/** What besides stages may be chosen, and what must be kept to. */
export function Choices({ wishes, parts, onChange }: Props) {
  return (
    <Box fontSize="sm">
      {HEADS.map((head) => (
        <HeadChoice
          key={head.key}
          words={head.words}
          parts={parts.filter((part) => head.kinds.includes(part.kind))}
          ids={wishes.heads[head.key]}
          onChange={(ids) => onChange({ heads: { ...wishes.heads, [head.key]: ids } })}
        />
      ))}
      <Row label="Motors a unit">
        <Text
          value={wishes.counts}
          label="Motors a unit"
          hint="as now, or 1 2"
          onChange={(counts) => onChange({ counts })}
        />
      </Row>
      <Row label="Buy for at most">
        <Text
          value={wishes.price}
          label="Buy for at most"
          hint="any price"
          onChange={(price) => onChange({ price })}
        />
      </Row>
      <Row label="Parts to buy">
        <Text
          value={wishes.toBuy}
          label="Parts to buy, at most"
          hint="any number"
          onChange={(toBuy) => onChange({ toBuy })}
        />
      </Row>
      <Row label="Overall, to 1">
        <Flex gap="1">
          <Text
            value={wishes.ratioFrom}
            label="Overall from"
            hint="from"
            narrow
            onChange={(ratioFrom) => onChange({ ratioFrom })}
          />
          <Text
            value={wishes.ratioTo}
            label="Overall to"
            hint="to"
            narrow
            onChange={(ratioTo) => onChange({ ratioTo })}
          />
        </Flex>
      </Row>
      {CHECKS.map(({ key, words, more }) => (
        <label key={key} style={{ display: "block" }} title={more}>
          <input
            type="checkbox"
            checked={wishes[key]}
            onChange={(event) => onChange({ [key]: event.target.checked })}
          />{" "}
          {words}
        </label>
      ))}
    </Box>
  );
}

function Row({ label, children }: { label: string; children: React.ReactNode }) {
  return (
    <Flex align="center" justify="space-between" gap="2" py="2px">
      <Box>{label}</Box>
      {children}
    </Flex>
  );
}

interface TextProps {
  value: string;
  label: string;
  hint: string;
  narrow?: boolean;
  onChange: (text: string) => void;
}

function Text({ value, label, hint, narrow, onChange }: TextProps) {
  return (
    <Input
      size="xs"
      w={narrow ? "4.6em" : "9.7em"}
      aria-label={label}
      placeholder={hint}
      value={value}
      onChange={(event) => onChange(event.target.value)}
    />
  );
}

interface HeadProps {
  words: string;
  parts: PartDocument[];
  ids: string[] | null;
  onChange: (ids: string[] | null) => void;
}

function HeadChoice({ words, parts, ids, onChange }: HeadProps) {
  const name = usePartName();
  const toggle = (id: string) => {
    const left = (ids ?? []).filter((entry) => entry !== id);
    const next = left.length === (ids ?? []).length ? [...left, id] : left;
    onChange(next.length > 0 ? next : null);
  };
  return (
    <details data-head={words}>
      <summary style={{ cursor: "pointer", padding: "3px 0" }}>
        {words}:{" "}
        <Box as="span" color="ink.second">
          {ids ? `${ids.length} of the bin` : "the design's own"}
        </Box>
      </summary>
      <Box pl="3" pb="1" maxH="170px" overflowY="auto">
        {parts.length === 0 && <Box color="ink.second">None in the bin.</Box>}
        {parts.map((part) => (
          <label key={part.id} style={{ display: "block" }}>
            <input
              type="checkbox"
              checked={ids?.includes(part.id) ?? false}
              onChange={() => toggle(part.id)}
            />{" "}
            {name(part)}
          </label>
        ))}
      </Box>
    </details>
  );
}
