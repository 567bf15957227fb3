import { Box } from "@chakra-ui/react";
import { useEffect, useRef } from "react";
import type { PartDocument } from "../../document/bin/bin";
import type { PartKind } from "../../document/bin/cells";
import { Rail } from "../../ui/frame/Rail";

interface Props {
  kinds: PartKind[];
  parts: PartDocument[];
  chosen: string;
  onChoose: (kind: string) => void;
}

/** The kinds of parts with how many there are; a kind without any is quiet. */
export function KindList({ kinds, parts, chosen, onChoose }: Props) {
  const list = useRef<HTMLDivElement>(null);
  useEffect(() => {
    // In the narrow row of a phone the chosen kind may lie outside.
    const here = list.current?.querySelector<HTMLElement>(`[data-kind=${chosen}]`);
    if (here && list.current) list.current.scrollLeft = here.offsetLeft - 20;
  }, [chosen]);
  const counts = new Map<string, number>();
  for (const part of parts) counts.set(part.kind, (counts.get(part.kind) ?? 0) + 1);
  return (
    <Rail ref={list} aria-label="Kinds of parts" position="relative" pt={{ md: "2" }} overflow="auto">
      {kinds.map((kind) => (
        <Box
          as="button"
          key={kind.kind}
          aria-current={kind.kind === chosen ? "page" : undefined}
          onClick={() => onChoose(kind.kind)}
          display="flex"
          justifyContent="space-between"
          gap="3"
          px="4"
          py="3px"
          minH="28px"
          alignItems="center"
          cursor="pointer"
          textAlign="left"
          bg={kind.kind === chosen ? "panel" : "transparent"}
          borderLeftWidth="3px"
          borderColor={kind.kind === chosen ? "spruce" : "transparent"}
          fontWeight={kind.kind === chosen ? "600" : "400"}
          color={counts.get(kind.kind) || kind.kind === chosen ? "ink" : "ink.second"}
          data-kind={kind.kind}
        >
          {kind.many}
          <Box as="span" fontFamily="mono" fontSize="13px" color="ink.second">
            {counts.get(kind.kind) ?? ""}
          </Box>
        </Box>
      ))}
    </Rail>
  );
}
