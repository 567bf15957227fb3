import { Box, Button, CloseButton, Dialog, Flex, Portal } from "@chakra-ui/react";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api, troubleText, type VehicleCard } from "../../api/client";
import { ToldOnce } from "../../ui/ToldOnce";
import { day } from "../../ui/when";
import { counted } from "../../words/counted";

const DAYS = { 1: "a day", 7: "a week", 30: "a month", 90: "three months" } as const;
type Days = keyof typeof DAYS;

/** Links to a design for people without an account: made for a time, and taken back. */
export function ShareDialog({ vehicle, onClose }: { vehicle: VehicleCard; onClose: () => void }) {
  const queries = useQueryClient();
  const params = { path: { vehicle: vehicle.id } };
  const [days, setDays] = useState<Days>(7);
  const again = () => queries.invalidateQueries({ queryKey: ["shares", vehicle.id] });
  const links = useQuery({
    queryKey: ["shares", vehicle.id],
    queryFn: () => answer(api.GET("/api/vehicles/{vehicle}/shares/", { params })),
  });
  const make = useMutation({
    mutationFn: () => answer(api.POST("/api/vehicles/{vehicle}/shares/", { params, body: { days } })),
    onSuccess: again,
  });
  const takeBack = useMutation({
    mutationFn: (share: string) =>
      answer(
        api.DELETE("/api/vehicles/{vehicle}/shares/{share}/", {
          params: { path: { vehicle: vehicle.id, share } },
        }),
      ),
    onSettled: again,
  });
  const trouble = make.error ?? takeBack.error;
  return (
    <Dialog.Root open onOpenChange={({ open }) => !open && onClose()}>
      <Portal>
        <Dialog.Backdrop />
        <Dialog.Positioner>
          <Dialog.Content bg="panel" data-share>
            <Dialog.Header>
              <Dialog.Title>Show {vehicle.name} to somebody</Dialog.Title>
            </Dialog.Header>
            <Dialog.Body>
              <Box color="ink.second" mb="3">
                Whoever has the link sees the line, the figures and where they come from, as they stand now.
                They need no account, change nothing, and see nothing else of the workshop.
              </Box>
              <Flex gap="2" align="center" wrap="wrap">
                <Box asChild>
                  <label htmlFor="share-days">For</label>
                </Box>
                <select
                  id="share-days"
                  className="plain"
                  value={days}
                  onChange={(event) => setDays(Number(event.target.value) as Days)}
                >
                  {Object.entries(DAYS).map(([number, words]) => (
                    <option key={number} value={number}>
                      {words}
                    </option>
                  ))}
                </select>
                <Button variant="solid" onClick={() => make.mutate()} loading={make.isPending}>
                  Make a link
                </Button>
              </Flex>
              {make.data && (
                <ToldOnce label="Link to the design" words="Send this." path={`/shared#${make.data.code}`} />
              )}
              {trouble && (
                <Box role="alert" color="brick" mt="2">
                  {troubleText(trouble)}
                </Box>
              )}
              <Box as="ul" listStyleType="none" p="0" mt="4">
                {links.data?.map((link) => (
                  <Flex
                    as="li"
                    key={link.id}
                    gap="3"
                    align="center"
                    py="1"
                    borderTopWidth="1px"
                    borderColor="line"
                  >
                    <Box flex="1">
                      until {day(link.expires_at)}
                      <Box as="span" color="ink.second" fontSize="sm">
                        {" "}
                        · by {link.author ?? "somebody"} on {day(link.made_at)} ·{" "}
                        {link.opened ? `opened ${counted(link.opened, "time")}` : "not opened yet"}
                      </Box>
                    </Box>
                    <Button size="sm" variant="ghost" onClick={() => takeBack.mutate(link.id)}>
                      Take back
                    </Button>
                  </Flex>
                ))}
              </Box>
            </Dialog.Body>
            <Dialog.CloseTrigger asChild>
              <CloseButton size="sm" aria-label="Close" />
            </Dialog.CloseTrigger>
          </Dialog.Content>
        </Dialog.Positioner>
      </Portal>
    </Dialog.Root>
  );
}
