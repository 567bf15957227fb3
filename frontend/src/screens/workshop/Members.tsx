import { Box, Button, Flex, Heading, Input, Text } from "@chakra-ui/react";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { useParams } from "react-router";
import { answer, api, type Role } from "../../api/client";
import { Notice } from "../../ui/frame/Notice";
import { TopBar } from "../../ui/frame/TopBar";

const ROLES: Record<Role, string> = {
  owner: "owner",
  editor: "editor, may change",
  viewer: "viewer, may look",
};

/** A workshop: its name, and who works in it. */
export function Members() {
  const { workshop = "" } = useParams();
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
  const [username, setUsername] = useState("");
  const [role, setRole] = useState<Role>("editor");
  const again = () => queries.invalidateQueries({ queryKey: ["members", workshop] });
  const add = useMutation({
    mutationFn: () =>
      answer(api.POST("/api/workshops/{workshop}/members/", { ...path, body: { username, role } })),
    onSuccess: () => {
      setUsername("");
      return again();
    },
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
    onSettled: again,
  });
  if (about.isError)
    return <Notice title="There is no such workshop">It is not there, or you are not a member of it.</Notice>;
  const mine = about.data?.role === "owner";
  const trouble = add.error ?? change.error;
  return (
    <>
      <TopBar />
      <Box as="main" maxW="40rem" mx="auto" mt="8" px="4">
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
              </Box>
              {mine ? (
                <>
                  <RoleSelect
                    label={`Role of ${member.username}`}
                    value={member.role}
                    onChange={(next) => change.mutate({ id: member.id, role: next })}
                  />
                  <Button
                    size="sm"
                    variant="ghost"
                    onClick={() => change.mutate({ id: member.id, role: null })}
                  >
                    Remove
                  </Button>
                </>
              ) : (
                <Box color="ink.second">{ROLES[member.role]}</Box>
              )}
            </Flex>
          ))}
        </Box>
        {mine && (
          <form
            onSubmit={(event: FormEvent) => {
              event.preventDefault();
              add.mutate();
            }}
          >
            <Flex gap="2" mt="4" wrap="wrap">
              <Input
                aria-label="Name of an account to add"
                placeholder="name of their account"
                value={username}
                onChange={(event) => setUsername(event.target.value)}
                flex="1"
                minW="12rem"
              />
              <RoleSelect label="Role to give" value={role} onChange={setRole} />
              <Button type="submit" variant="solid">
                Add to the workshop
              </Button>
            </Flex>
          </form>
        )}
        {trouble && (
          <Text role="alert" color="brick" mt="2">
            {trouble.message}
          </Text>
        )}
      </Box>
    </>
  );
}

function RoleSelect({
  label,
  value,
  onChange,
}: {
  label: string;
  value: Role;
  onChange: (role: Role) => void;
}) {
  return (
    <select
      aria-label={label}
      className="plain"
      value={value}
      onChange={(event) => onChange(event.target.value as Role)}
    >
      {Object.entries(ROLES).map(([role, words]) => (
        <option key={role} value={role}>
          {words}
        </option>
      ))}
    </select>
  );
}
