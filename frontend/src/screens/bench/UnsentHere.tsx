import { Box, Button } from "@chakra-ui/react";
import { useQueries } from "@tanstack/react-query";
import { Link } from "react-router";
import { useWorkshops, vehiclesQuery } from "../../api/workshops";
import type { DesignDocument } from "../../document/document";
import { saveDesignFile } from "../../document/files";
import { AskAgain } from "../../ui/AskAgain";
import { useBar } from "../../ui/frame/TopBar";
import { dropKept, readKept } from "../../ui/kept";
import { type Unsent, useUnsent } from "../../ui/unsent";

/** What was typed on this device and has not reached the server, each with the way to where it is sent from. */
export function UnsentHere() {
  const account = useBar().username;
  const unsent = useUnsent(account);
  const names = useNames(unsent.length > 0);
  if (unsent.length === 0) return null;
  const places = [...new Set(unsent.map((one) => one.place))];
  return (
    <Box role="status" mb="4" px="4" py="2" bg="copper.wash" data-unsent>
      Kept on this device, not sent yet. Open it with a connection, and it goes.
      <Box as="ul" listStyleType="none">
        {places.map((place) => {
          const here = unsent.filter((one) => one.place === place);
          return (
            <li key={place}>
              <b>{names.of(place)}</b>: <Ways unsent={here} />
              {names.known && !names.has(place) && (
                <Nowhere unsent={here} onDrop={() => void dropKept(account, place)} />
              )}
            </li>
          );
        })}
      </Box>
    </Box>
  );
}

function Ways({ unsent }: { unsent: Unsent[] }) {
  return unsent.map(({ key, to, words }, i) => (
    <span key={key}>
      {i > 0 && ", "}
      <Box asChild color="spruce" textDecoration="underline">
        <Link to={to}>{words}</Link>
      </Box>
    </span>
  ));
}

/** What can be done with what has nowhere to go: its vehicle is gone, or no longer one's own. */
function Nowhere({ unsent, onDrop }: { unsent: Unsent[]; onDrop: () => void }) {
  return (
    <>
      {unsent.map(({ key }) => {
        const design = readKept<{ document?: DesignDocument }>(key, {}).document;
        return (
          design && (
            <Button key={key} size="xs" ml="2" onClick={() => saveDesignFile(design)}>
              Save it as a file
            </Button>
          )
        );
      })}
      <AskAgain ask="Drop it" sure="Drop it for good" size="xs" ml="2" onSure={onDrop} />
    </>
  );
}

/** What the vehicles and workshops are called that one has a part in. */
function useNames(wanted: boolean) {
  const workshops = useWorkshops().data ?? [];
  const queries = useQueries({
    queries: workshops.map(({ id }) => ({ ...vehiclesQuery(id), enabled: wanted })),
  });
  const named = [...workshops, ...queries.flatMap(({ data }) => data ?? [])];
  const names = new Map(named.map(({ id, name }) => [id, name]));
  return {
    known: queries.length > 0 && queries.every(({ isSuccess }) => isSuccess),
    has: (place: string) => names.has(place),
    of: (place: string) => names.get(place) ?? "What you cannot open any more",
  };
}
