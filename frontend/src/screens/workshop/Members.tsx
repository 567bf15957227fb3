import { Box, Button, Flex, Heading, Text } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { Link, useParams } from "react-router";
import { answer, api } from "../../api/client";
import { TopBar, useBar } from "../../ui/frame/TopBar";
import { Unavailable } from "../../ui/frame/Unavailable";
import { Archive } from "./Archive";
import { Going } from "./Going";
import { Instruments } from "./Instruments";
import { Invitations } from "./Invitations";
import { MemberRow } from "./MemberRow";
import { OnAPhone } from "./OnAPhone";
import { ROLES } from "./RoleSelect";
import { Usage } from "./Usage";

/** A workshop: its name, who works in it, who is asked to, and the way out. */
export function Members() {
  const { workshop = "" } = useParams();
  const { username } = useBar();
  const path = { params: { path: { workshop } } };
  const about = useQuery({
    queryKey: ["workshop", workshop],
    queryFn: () => answer(api.GET("/api/workshops/{workshop}/", path)),
  });
  const members = useQuery({
    queryKey: ["members", workshop],
    queryFn: () => answer(api.GET("/api/workshops/{workshop}/members/", path)),
  });
  if (!about.data && about.failureReason)
    return (
      <Unavailable error={about.failureReason} title="There is no such workshop">
        It is not there, or you are not a member of it.
      </Unavailable>
    );
  const mine = about.data?.role === "owner";
  return (
    <>
      <TopBar workshop={workshop} />
      <Box as="main" maxW="40rem" mx="auto" mt="8" px="4" pb="8">
        <Heading as="h1" size="xl" mb="1">
          {about.data?.name}
        </Heading>
        <Text color="ink.second" mb="4">
          Everybody here sees its vehicles; nobody else does.
        </Text>
        <Box as="ul" listStyleType="none" p="0">
          {members.data?.map((member) =>
            mine ? (
              <MemberRow
                key={member.id}
                workshop={workshop}
                member={member}
                self={member.username === username}
              />
            ) : (
              <Flex as="li" key={member.id} gap="3" py="2" borderTopWidth="1px" borderColor="line">
                <Box flex="1" fontWeight="600">
                  {member.username}
                </Box>
                <Box color="ink.second">{ROLES[member.role]}</Box>
              </Flex>
            ),
          )}
        </Box>
        {mine && <Invitations workshop={workshop} />}
        <OnAPhone />
        {mine && <Instruments workshop={workshop} />}
        {mine && (
          <Box mt="8" data-class>
            <Heading as="h2" size="md" mb="1">
              A class
            </Heading>
            <Box color="ink.second" mb="2">
              Exercises for pupils who join with a code; they see nothing of the workshop.
            </Box>
            <Button asChild>
              <Link to={`/workshops/${workshop}/sets`}>Exercises for a class</Link>
            </Button>
          </Box>
        )}
        <Box mt="8" data-races>
          <Heading as="h2" size="md" mb="1">
            Races
          </Heading>
          <Box color="ink.second" mb="2">
            Teams, lanes, who runs next, and what was predicted beside what was run.
          </Box>
          <Button asChild>
            <Link to={`/workshops/${workshop}/races`}>Race boards</Link>
          </Button>
        </Box>
        <Usage workshop={workshop} />
        <Archive workshop={workshop} />
        {about.data && <Going workshop={workshop} name={about.data.name} owner={mine} />}
      </Box>
    </>
  );
}
