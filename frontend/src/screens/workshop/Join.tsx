import { Box, Button, Heading, Text } from "@chakra-ui/react";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useLocation, useNavigate } from "react-router";
import { answer, api, troubleText } from "../../api/client";
import { TopBar } from "../../ui/frame/TopBar";
import { Unavailable } from "../../ui/frame/Unavailable";
import { ROLES } from "./RoleSelect";

/** What a link to join stands for, and the one button. The code is behind the "#", which no server and no log is sent. */
export function Join() {
  // Not the browser's: that changes on the way out, while this is still shown, and the page would ask about no code.
  const code = useLocation().hash.slice(1);
  const queries = useQueryClient();
  const navigate = useNavigate();
  const about = useQuery({
    queryKey: ["joining", code],
    queryFn: () => answer(api.POST("/api/joining/", { body: { code, accept: false } })),
  });
  const join = useMutation({
    mutationFn: () => answer(api.POST("/api/joining/", { body: { code, accept: true } })),
    onSuccess: async () => {
      await queries.invalidateQueries({ queryKey: ["workshops"] });
      await navigate("/");
    },
  });
  if (!about.data && about.failureReason)
    return (
      <Unavailable error={about.failureReason} title="This link does not stand">
        {about.failureReason.message}
      </Unavailable>
    );
  return (
    <>
      <TopBar />
      <Box as="main" maxW="32rem" mx="auto" mt="12" px="4">
        {about.data && (
          <>
            <Heading as="h1" size="xl" mb="2">
              Join {about.data.workshop}?
            </Heading>
            <Text mb="4">
              {about.data.author ?? "Somebody"} invites you as {ROLES[about.data.role]}. You see its vehicles
              from then on; yours stay where they are.
            </Text>
            <Button variant="solid" onClick={() => join.mutate()} loading={join.isPending}>
              Join
            </Button>
            {join.error && (
              <Text role="alert" color="brick" mt="2">
                {troubleText(join.error)}
              </Text>
            )}
          </>
        )}
      </Box>
    </>
  );
}
