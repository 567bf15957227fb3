import { Box, Button, Flex, Heading, Input } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import type { Race } from "../../api/client";
import { useWorkshops, vehiclesQuery } from "../../api/workshops";
import { type Board, entering, leaving, mayLeave } from "./board";
import type { BoardHeld } from "./useBoard";

interface Props {
  race: Race;
  board: Board;
  onChange: BoardHeld["change"];
}

/** Teams are entered by a name, with a vehicle of the workshop or without. */
export function Teams({ race, board, onChange }: Props) {
  const [name, setName] = useState("");
  const [vehicle, setVehicle] = useState("");
  const vehicles = useVehiclesOf(race.workshop);
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    const called = name.trim() || vehicles.find((entry) => entry.id === vehicle)?.name || "";
    if (!called) return;
    if (!(await onChange(entering(called, vehicle)))) return;
    // What has been typed since is the next team's.
    setName((now) => (now === name ? "" : now));
    setVehicle((now) => (now === vehicle ? "" : now));
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
            <Button size="xs" variant="ghost" onClick={() => void onChange(leaving(entry))}>
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
          {vehicles.map((vehicle) => (
            <option key={vehicle.id} value={vehicle.id}>
              {vehicle.name}
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
  const known = useWorkshops().data?.some((row) => row.id === workshop) ?? false;
  return useQuery({ ...vehiclesQuery(workshop), enabled: known }).data ?? [];
}
