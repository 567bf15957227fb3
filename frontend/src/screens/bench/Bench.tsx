import { Box, Button, Flex, Heading, Input } from "@chakra-ui/react";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useRef, useState } from "react";
import { Link, useNavigate, useSearchParams } from "react-router";
import { answer, api, RefusedError, troubleText, type VehicleCard } from "../../api/client";
import { useSession } from "../../api/session";
import { useWorkshopAtHand, vehiclesQuery } from "../../api/workshops";
import { FileInput } from "../../ui/fields/FileInput";
import { TopBar } from "../../ui/frame/TopBar";
import { useTitle } from "../../ui/frame/useTitle";
import { day, moment } from "../../ui/when";
import { StartGrid, useStarts } from "../begin/StartGrid";
import { type Arranged, arranged, ORDERS } from "./arrange";
import { Requests } from "./Requests";
import { UnsentHere } from "./UnsentHere";
import { useWhere } from "./useWhere";
import { cardsQuery, VehicleCardView } from "./VehicleCard";

/** The vehicles of a workshop as cards; home. */
export function Bench() {
  const { open, chosen, homeless } = useWorkshopAtHand();
  const [, setSearch] = useSearchParams();
  useTitle(chosen ? `Bench of ${chosen.name}` : "");
  const stand = (workshop: string) => {
    setSearch({ workshop });
    void api.PATCH("/api/session/", { body: { workshop } });
  };
  return (
    <>
      <TopBar workshop={chosen?.id} />
      <Box as="main" maxW="1180px" mx="auto" px="4" py="5">
        <Requests />
        <UnsentHere />
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
      {make.error && (
        <Box role="alert" color="brick" mt="2">
          {troubleText(make.error)}
        </Box>
      )}
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

/** Vehicles on the bench from which on they are sorted and filtered. */
const MANY = 6;

function Vehicles({ workshop, mayEdit }: { workshop: string; mayEdit: boolean }) {
  const vehicles = useQuery({ ...vehiclesQuery(workshop), staleTime: 0 });
  // The cards are asked for beside the vehicles, not after them.
  useQuery({ ...cardsQuery(workshop), staleTime: 0 });
  const [typed, setTyped] = useState("");
  const [order, setOrder] = useState<Arranged>("changed");
  const all = vehicles.data ?? [];
  const here = all.filter((v) => !v.put_away);
  const many = here.length > MANY;
  const shown = many ? arranged(here, typed, order) : here;
  return (
    <>
      {vehicles.isSuccess && all.length === 0 && <EmptyBench workshop={workshop} mayEdit={mayEdit} />}
      {mayEdit && vehicles.isSuccess && <NewVehicle workshop={workshop} empty={all.length === 0} />}
      {many && <Arrange {...{ typed, setTyped, order, setOrder }} />}
      <Box display="grid" gridTemplateColumns="repeat(auto-fill, minmax(320px, 1fr))" gap="4">
        {shown.map((vehicle) => (
          <VehicleCardView key={vehicle.id} vehicle={vehicle} mayEdit={mayEdit} />
        ))}
      </Box>
      {many && shown.length === 0 && <Box color="ink.second">No vehicle is called that.</Box>}
      <Drawer vehicles={all.filter((v) => v.put_away)} mayEdit={mayEdit} />
    </>
  );
}

interface ArrangeProps {
  typed: string;
  setTyped: (typed: string) => void;
  order: Arranged;
  setOrder: (order: Arranged) => void;
}

function Arrange({ typed, setTyped, order, setOrder }: ArrangeProps) {
  return (
    <Flex gap="2" mb="3" wrap="wrap" data-arrange>
      <Input
        aria-label="Find a vehicle"
        placeholder="find by name or notes"
        fontFamily="body"
        maxW="18rem"
        value={typed}
        onChange={(event) => setTyped(event.target.value)}
      />
      <select
        className="plain"
        aria-label="Order of the vehicles"
        value={order}
        onChange={(event) => setOrder(event.target.value as Arranged)}
      >
        {Object.entries(ORDERS).map(([key, words]) => (
          <option key={key} value={key}>
            {words}
          </option>
        ))}
      </select>
    </Flex>
  );
}

/** What was put away, each with the way back. */
function Drawer({ vehicles, mayEdit }: { vehicles: VehicleCard[]; mayEdit: boolean }) {
  if (vehicles.length === 0) return null;
  return (
    <Box asChild mt="5" maxW="560px" data-drawer>
      <details>
        <Box asChild cursor="pointer" color="ink.second">
          <summary>Put away: {vehicles.length}</summary>
        </Box>
        <Box as="ul" listStyleType="none" p="0" mt="2">
          {vehicles.map((vehicle) => (
            <PutAway key={vehicle.id} vehicle={vehicle} mayEdit={mayEdit} />
          ))}
        </Box>
      </details>
    </Box>
  );
}

function PutAway({ vehicle, mayEdit }: { vehicle: VehicleCard; mayEdit: boolean }) {
  const where = useWhere(vehicle);
  return (
    <Flex as="li" gap="3" py="1" align="center" wrap="wrap" borderTopWidth="1px" borderColor="line">
      <Box asChild flex="1" textDecoration="underline">
        <Link to={`/vehicles/${vehicle.id}/line`}>{vehicle.name}</Link>
      </Box>
      <Box color="ink.second" fontSize="sm">
        {vehicle.gone_at
          ? `goes for good on ${day(vehicle.gone_at)}`
          : `changed ${moment(vehicle.changed_at)}`}
      </Box>
      {mayEdit && !vehicle.gone_at && (
        <Button
          size="xs"
          variant="ghost"
          onClick={() => where.mutate({ delete: true })}
          aria-label={`Delete: ${vehicle.name}`}
          title="It stays here for 30 days, and can be taken back until then"
        >
          Delete
        </Button>
      )}
      {mayEdit && (
        <Button
          size="xs"
          onClick={() => where.mutate({ put_away: false })}
          aria-label={`Take back: ${vehicle.name}`}
        >
          Take back
        </Button>
      )}
      {where.error && (
        <Box role="alert" color="brick" fontSize="sm" w="100%">
          {troubleText(where.error)}
        </Box>
      )}
    </Flex>
  );
}

/** On a server with the demo, its vehicles to be copied to a bench of one's own. */
function FromDemo({ workshop }: { workshop: string }) {
  const session = useSession().data;
  const navigate = useNavigate();
  const wanted = session?.demo === true && !session.visitor;
  const vehicles = useQuery({
    queryKey: ["demo vehicles"],
    queryFn: () => answer(api.GET("/api/demo/vehicles/")),
    enabled: wanted,
  });
  const copy = useMutation({
    mutationFn: (vehicle: string) =>
      answer(
        api.POST("/api/demo/vehicles/{vehicle}/copies/", {
          params: { path: { vehicle } },
          body: { workshop },
        }),
      ),
    onSuccess: (created) => navigate(`/vehicles/${created.id}/line`),
  });
  if (!wanted || !vehicles.data?.length) return null;
  return (
    <Flex gap="2" mt="3" wrap="wrap" align="center" fontSize="sm" data-from-demo>
      <Box color="ink.second">Or copy one of the Saltmarsh Workshop:</Box>
      {vehicles.data.map((vehicle) => (
        <Button key={vehicle.id} size="xs" onClick={() => copy.mutate(vehicle.id)}>
          {vehicle.name}
        </Button>
      ))}
      {copy.isError && (
        <Box role="alert" color="brick">
          {troubleText(copy.error)}
        </Box>
      )}
    </Flex>
  );
}

/** The ways in which a vehicle comes onto the bench. */
function NewVehicle({ workshop, empty }: { workshop: string; empty: boolean }) {
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
      setTrouble(faults ? faults.map((f) => `${f.path}: ${f.problem}, ${f.remedy}`) : [troubleText(error)]);
    },
  });
  const open = async (chosen: File) => {
    setTrouble([]);
    try {
      add.mutate(JSON.parse(await chosen.text()));
    } catch {
      setTrouble([`${chosen.name} is not JSON: choose a design file.`]);
    }
  };
  return (
    <Box mb="4" mt={empty ? "4" : "0"}>
      <Flex gap="2" wrap="wrap" align="center">
        {!empty && (
          <Button asChild variant="solid">
            <Link to={`/workshops/${workshop}/new`}>Put a vehicle on the bench</Link>
          </Button>
        )}
        <Button onClick={() => file.current?.click()}>Open a design file</Button>
        <FileInput
          ref={file}
          accept="application/json,.json"
          hidden
          aria-label="Design file"
          onPick={(file) => void open(file)}
        />
      </Flex>
      <FromDemo workshop={workshop} />
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
