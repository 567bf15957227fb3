import { Box, Button, Flex, Heading } from "@chakra-ui/react";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { answer, api, troubleText } from "../../api/client";
import { moment } from "../../ui/when";

/** Where one is signed in: one device can be signed out, or all others at once. */
export function Devices() {
  const queries = useQueryClient();
  const devices = useQuery({
    queryKey: ["devices"],
    queryFn: () => answer(api.GET("/api/accounts/devices/")),
  });
  const end = useMutation({
    mutationFn: (device: string | null) =>
      device === null
        ? answer(api.DELETE("/api/accounts/devices/"))
        : answer(api.DELETE("/api/accounts/devices/{device}/", { params: { path: { device } } })),
    onSettled: () => queries.invalidateQueries({ queryKey: ["devices"] }),
  });
  const others = devices.data?.filter((row) => !row.here) ?? [];
  return (
    <Box as="section" mt="8" aria-labelledby="devices" data-devices>
      <Heading as="h2" id="devices" size="md" mb="1">
        Where you are signed in
      </Heading>
      <Box as="ul" listStyleType="none" p="0">
        {devices.data?.map((row) => (
          <Flex
            as="li"
            key={row.id}
            gap="3"
            align="center"
            py="1"
            minH="40px"
            borderTopWidth="1px"
            borderColor="line"
          >
            <Box flex="1">
              <Box as="span" fontWeight="600">
                {row.here ? `this ${row.device}` : `a ${row.device}`}
              </Box>
              <Box as="span" color="ink.second" fontSize="sm">
                {" "}
                · {row.address} · since {moment(row.since)}
                {!row.here && `, last here ${moment(row.last_at)}`}
              </Box>
            </Box>
            {!row.here && (
              <Button size="sm" variant="ghost" onClick={() => end.mutate(row.id)}>
                Sign out
              </Button>
            )}
          </Flex>
        ))}
      </Box>
      {others.length > 1 && (
        <Button mt="2" onClick={() => end.mutate(null)} loading={end.isPending}>
          Sign out everywhere else
        </Button>
      )}
      {end.error && (
        <Box role="alert" color="brick">
          {troubleText(end.error)}
        </Box>
      )}
    </Box>
  );
}
