import { Box, Button, Flex, Heading, Text } from "@chakra-ui/react";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Link, useParams } from "react-router";
import { answer, api, type Role } from "../../api/client";
import { Notice } from "../../ui/frame/Notice";
import { TopBar, useBar } from "../../ui/frame/TopBar";
import { Archive } from "./Archive";
import { Going } from "./Going";
import { Instruments } from "./Instruments";
import { Invitations } from "./Invitations";
import { OnAPhone } from "./OnAPhone";
import { ROLES, RoleSelect } from "./RoleSelect";
import { Usage } from "./Usage";

/** A workshop: its name, who works in it, who is asked to, and the way out. */
export function Members() {
  const { workshop = "" } = useParams();
  const { username } = useBar();
  const path = { params: { path: { workshop } } };
  const queries = useQueryClient();
  const about = useQuery({
    queryKey: ["workshop", workshop],
    queryFn: () => answer(api.GET("/api/workshops/{workshop}/", path)),
  });
  const members = useQuery({
    queryKey: ["members", workshop],
    queryFn: () => answer(api.GET("/api/workshops/{workshop}/members/", path)),
  });
  const change = useMutation({
    mutationFn: ({ id, role }: { id: number; role: Role | null }) => {
      const params = { path: { workshop, member: id } };
      return role === null
        ? answer(api.DELETE("/api/workshops/{workshop}/members/{member}/", { params }))
        : answer(
            api.PATCH("/api/workshops/{workshop}/members/{member}/", {
              params,
              body: { role },
            }) as Promise<never>,
          );
    },
    onSettled: () => queries.invalidateQueries({ queryKey: ["members", workshop] }),
  });
  if (about.isError)
    return <Notice title="There is no such workshop">It is not there, or you are not a member of it.</Notice>;
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
          {members.data?.map((member) => (
            <Flex
              as="li"
              key={member.id}
              gap="3"
              align="center"
              py="2"
              borderTopWidth="1px"
              borderColor="line"
            >
              <Box flex="1" fontWeight="600">
                {member.username}
                {member.username === username && (
                  <Box as="span" fontWeight="400" color="ink.second">
                    {" "}
                    (you)
                  </Box>
                )}
              </Box>
              {mine ? (
                <>
                  <RoleSelect
                    label={`Role of ${member.username}`}
                    value={member.role}
                    onChange={(next) => change.mutate({ id: member.id, role: next })}
                  />
                  {member.username !== username && (
                    <Button
                      size="sm"
                      variant="ghost"
                      onClick={() => change.mutate({ id: member.id, role: null })}
                    >
                      Remove
                    </Button>
                  )}
                </>
              ) : (
                <Box color="ink.second">{ROLES[member.role]}</Box>
              )}
            </Flex>
          ))}
        </Box>
        {change.error && (
          <Text role="alert" color="brick" mt="2">
            {change.error.message}
          </Text>
        )}
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
