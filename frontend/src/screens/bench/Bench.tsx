import { Box, Button, Flex, Heading } from "@chakra-ui/react";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useRef, useState } from "react";
import { Link, useNavigate, useSearchParams } from "react-router";
import { answer, api, RefusedError } from "../../api/client";
import { useWorkshopAtHand } from "../../api/workshops";
import { TopBar } from "../../ui/frame/TopBar";
import { StartGrid, useStarts } from "../begin/StartGrid";
import { Requests } from "./Requests";
import { VehicleCardView } from "./VehicleCard";

/** The vehicles of a workshop as cards; home. */
export function Bench() {
  const { open, chosen, homeless } = useWorkshopAtHand();
  const [, setSearch] = useSearchParams();
  const stand = (workshop: string) => {
    setSearch({ workshop });
    void api.PATCH("/api/session/", { body: { workshop } });
  };
  return (
    <>
      <TopBar workshop={chosen?.id} />
      <Box as="main" maxW="1180px" mx="auto" px="4" py="5">
        <Requests />
        {homeless && <MakeWorkshop />}
        {chosen && (
          <>
            <Flex align="baseline" gap="4" mb="4" wrap="wrap">
              <Heading as="h1" size="2xl">
                {chosen.name}
              </Heading>
              {open.length > 1 && (
                <select
                  className="plain"
                  aria-label="Workshop"
                  value={chosen.id}
                  onChange={(event) => stand(event.target.value)}
                >
                  {open.map((w) => (
                    <option key={w.id} value={w.id}>
                      {w.name}
                    </option>
                  ))}
                </select>
              )}
              <Box asChild color="spruce" textDecoration="underline">
                <Link to={`/workshops/${chosen.id}`}>Who works here</Link>
              </Box>
            </Flex>
            <Vehicles key={chosen.id} workshop={chosen.id} mayEdit={chosen.role !== "viewer"} />
          </>
        )}
      </Box>
    </>
  );
}

function MakeWorkshop() {
  const queries = useQueryClient();
  const make = useMutation({
    mutationFn: () => answer(api.POST("/api/workshops/", { body: { name: "My workshop" } })),
    onSuccess: () => queries.invalidateQueries({ queryKey: ["workshops"] }),
  });
  return (
    <Box>
      You are in no workshop.{" "}
      <Button variant="solid" onClick={() => make.mutate()}>
        Make one
      </Button>
    </Box>
  );
}

/** What to do first, with the pictures to begin from. */
function EmptyBench({ workshop, mayEdit }: { workshop: string; mayEdit: boolean }) {
  const starts = useStarts();
  return (
    <>
      <Box color="ink.second" mb="3">
        The bench is empty.{mayEdit && " Choose what your vehicle is most like, or open a design file."}
      </Box>
      {mayEdit && starts.data && <StartGrid workshop={workshop} starts={starts.data} />}
    </>
  );
}

function Vehicles({ workshop, mayEdit }: { workshop: string; mayEdit: boolean }) {
  const params = { params: { path: { workshop } } };
  const vehicles = useQuery({
    queryKey: ["vehicles", workshop],
    queryFn: () => answer(api.GET("/api/workshops/{workshop}/vehicles/", params)),
    staleTime: 0,
  });
  const [showAway, setShowAway] = useState(false);
  const all = vehicles.data ?? [];
  const away = all.filter((v) => v.put_away);
  const shown = showAway ? away : all.filter((v) => !v.put_away);
  return (
    <>
      {vehicles.isSuccess && all.length === 0 && <EmptyBench workshop={workshop} mayEdit={mayEdit} />}
      <Box display="grid" gridTemplateColumns="repeat(auto-fill, minmax(320px, 1fr))" gap="4">
        {shown.map((vehicle) => (
          <VehicleCardView key={vehicle.id} vehicle={vehicle} mayEdit={mayEdit} />
        ))}
      </Box>
      {mayEdit && <NewVehicle workshop={workshop} />}
      {(away.length > 0 || showAway) && (
        <Button mt="4" variant="ghost" onClick={() => setShowAway(!showAway)}>
          {showAway ? "Back to the bench" : `Put away: ${away.length}`}
        </Button>
      )}
    </>
  );
}

/** The ways in which a vehicle comes onto the bench. */
function NewVehicle({ workshop }: { workshop: string }) {
  const navigate = useNavigate();
  const [trouble, setTrouble] = useState<string[]>([]);
  const file = useRef<HTMLInputElement>(null);
  const params = { params: { path: { workshop } } };
  const add = useMutation({
    mutationFn: (document: Record<string, unknown>) =>
      answer(api.POST("/api/workshops/{workshop}/vehicles/", { ...params, body: { document } })),
    onSuccess: (vehicle) => navigate(`/vehicles/${vehicle.id}/brief`),
    onError: (error) => {
      const faults = error instanceof RefusedError ? error.refusal.faults : undefined;
      setTrouble(faults ? faults.map((f) => `${f.path}: ${f.problem}, ${f.remedy}`) : [error.message]);
    },
  });
  const open = async (chosen: File | undefined) => {
    if (!chosen) return;
    setTrouble([]);
    try {
      add.mutate(JSON.parse(await chosen.text()));
    } catch {
      setTrouble([`${chosen.name} is not JSON: choose a design file.`]);
    }
  };
  return (
    <Box mt="4">
      <Flex gap="2" wrap="wrap" align="center">
        <Button asChild variant="solid">
          <Link to={`/workshops/${workshop}/new`}>Put a vehicle on the bench</Link>
        </Button>
        <Button onClick={() => file.current?.click()}>Open a design file</Button>
        <input
          ref={file}
          type="file"
          accept="application/json,.json"
          hidden
          aria-label="Design file"
          onChange={(event) => void open(event.target.files?.[0])}
        />
      </Flex>
      {trouble.length > 0 && (
        <Box as="ul" role="alert" color="brick" mt="2" pl="4">
          {trouble.map((line) => (
            <li key={line}>{line}</li>
          ))}
        </Box>
      )}
    </Box>
  );
}
