import { Box, Flex, Heading } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { answer, api } from "../../api/client";

/** Where a phone finds this server, to be read by its camera. */
export function OnAPhone() {
  const reach = useQuery({ queryKey: ["reach"], queryFn: () => answer(api.GET("/api/reach/")) });
  if (!reach.data) return null;
  const [first, ...others] = reach.data.addresses;
  return (
    <Box as="section" mt="8" aria-labelledby="on-a-phone" data-reach>
      <Heading as="h2" id="on-a-phone" size="md" mb="1">
        On a phone
      </Heading>
      {first === undefined ? (
        <Box color="ink.second">
          Only this computer is served. Start it with <code>./ydro start --lan</code>, and phones in the same
          network find it too.
        </Box>
      ) : (
        <Flex gap="4" align="flex-start" wrap="wrap">
          <img src={reach.data.qr} alt={`QR code of ${first}`} width={148} height={148} />
          <Box flex="1" minW="15rem">
            <Box fontFamily="mono" fontSize="lg" fontWeight="700" overflowWrap="anywhere" userSelect="all">
              {first}
            </Box>
            {others.length > 0 && (
              <Box fontSize="sm" color="ink.second">
                or {others.join(", ")}
              </Box>
            )}
            <Box fontSize="sm" color="ink.second" mt="1">
              Point the phone's camera at it.
              {reach.data.local && " The phone has to be in the same network."} Everybody signs in with an
              account of their own.
            </Box>
            {!reach.data.local ? null : reach.data.fingerprint ? (
              <Box fontSize="sm" mt="1">
                The certificate was made on this machine, so the phone asks once whether you trust it. Its
                fingerprint (SHA-256) must be{" "}
                <Box as="span" fontFamily="mono" fontSize="xs" overflowWrap="anywhere">
                  {reach.data.fingerprint}
                </Box>
              </Box>
            ) : (
              <Box fontSize="sm" mt="1">
                Plain HTTP: others in this network can read along. Start it with <code>--https</code> where
                you do not trust it.
              </Box>
            )}
          </Box>
        </Flex>
      )}
    </Box>
  );
}
