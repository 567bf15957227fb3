import { Box, Button, Flex, Heading, Input } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import type { Race } from "../../api/client";
import { useWorkshops, vehiclesQuery } from "../../api/workshops";
import { type Board, mayLeave, withEntry, withoutEntry } from "./board";

interface Props {
  race: Race;
  board: Board;
  onChange: (board: Board) => void;
}

/** Teams are entered by a name, with a vehicle of the workshop or without. */
export function Teams({ race, board, onChange }: Props) {
  const [name, setName] = useState("");
  const [vehicle, setVehicle] = useState("");
  const vehicles = useVehiclesOf(race.workshop);
  const submit = (event: FormEvent) => {
    event.preventDefault();
    const called = name.trim() || vehicles.find((one) => one.id === vehicle)?.name || "";
    if (!called) return;
    onChange(withEntry(board, called, vehicle));
    setName("");
    setVehicle("");
  };
  return (
    <Box as="section" mt="6" data-screen-only data-teams>
      <Heading as="h2" size="md" mb="1">
        Teams
      </Heading>
      {board.entries.map((entry) => (
        <Flex key={entry.id} gap="3" py="1" borderTopWidth="1px" borderColor="line" align="center">
          <Box flex="1">
            {entry.name}{" "}
            <Box as="span" color="ink.second">
              {race.entries.find((one) => one.id === entry.id)?.vehicle_name}
            </Box>
          </Box>
          {mayLeave(board, entry.id) && (
            <Button size="xs" variant="ghost" onClick={() => onChange(withoutEntry(board, entry.id))}>
              Take it out
            </Button>
          )}
        </Flex>
      ))}
      <Flex as="form" onSubmit={submit} gap="2" mt="3" wrap="wrap" align="center">
        <Input
          w="14rem"
          aria-label="Name of a team"
          placeholder="Name of a team"
          value={name}
          onChange={(event) => setName(event.target.value)}
        />
        <select
          className="plain"
          aria-label="Its vehicle"
          value={vehicle}
          onChange={(event) => setVehicle(event.target.value)}
        >
          <option value="">no vehicle of the workshop</option>
          {vehicles.map((one) => (
            <option key={one.id} value={one.id}>
              {one.name}
            </option>
          ))}
        </select>
        <Button type="submit" disabled={!name.trim() && !vehicle}>
          Enter the team
        </Button>
      </Flex>
    </Box>
  );
}

function useVehiclesOf(workshop: string) {
  const known = useWorkshops().data?.some((one) => one.id === workshop) ?? false;
  return useQuery({ ...vehiclesQuery(workshop), enabled: known }).data ?? [];
}
