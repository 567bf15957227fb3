import { Box, Button, Flex, Heading, Input, Text } from "@chakra-ui/react";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { answer, api, type Role, troubleText } from "../../api/client";
import { ToldOnce } from "../../ui/ToldOnce";
import { day } from "../../ui/when";
import { ROLES, RoleSelect } from "./RoleSelect";

/** Asking people to join: with a link that one person can use, or by the name of their account. */
export function Invitations({ workshop }: { workshop: string }) {
  const path = { params: { path: { workshop } } };
  const queries = useQueryClient();
  const [username, setUsername] = useState("");
  const [role, setRole] = useState<Role>("editor");
  const again = () => queries.invalidateQueries({ queryKey: ["invitations", workshop] });
  const open = useQuery({
    queryKey: ["invitations", workshop],
    queryFn: () => answer(api.GET("/api/workshops/{workshop}/invitations/", path)),
  });
  const invite = useMutation({
    mutationFn: (name: string) =>
      answer(api.POST("/api/workshops/{workshop}/invitations/", { ...path, body: { username: name, role } })),
    onSuccess: () => {
      setUsername("");
      return again();
    },
  });
  const withdraw = useMutation({
    mutationFn: (invitation: string) =>
      answer(
        api.DELETE("/api/workshops/{workshop}/invitations/{invitation}/", {
          params: { path: { workshop, invitation } },
        }),
      ),
    onSettled: again,
  });
  const trouble = invite.error ?? withdraw.error;
  return (
    <Box as="section" mt="8">
      <Heading as="h2" size="md" mb="1">
        Invite somebody
      </Heading>
      <Text color="ink.second" fontSize="sm" mb="2">
        They become members when they accept. A link is for one person and stands for 14 days.
      </Text>
      <form
        onSubmit={(event: FormEvent) => {
          event.preventDefault();
          if (username.trim()) invite.mutate(username.trim());
        }}
      >
        <Flex gap="2" wrap="wrap" align="center">
          <RoleSelect label="Role to give" value={role} onChange={setRole} />
          <Button variant="solid" loading={invite.isPending} onClick={() => invite.mutate("")}>
            Make a link
          </Button>
          <Box color="ink.second">or</Box>
          <Input
            aria-label="Name of an account to ask"
            placeholder="name of their account"
            value={username}
            onChange={(event) => setUsername(event.target.value)}
            flex="1"
            minW="10rem"
            fontFamily="body"
          />
          <Button type="submit" disabled={!username.trim()}>
            Ask them
          </Button>
        </Flex>
      </form>
      {invite.data?.code && (
        <ToldOnce
          label="Link to join"
          words="Give this to the person you invite."
          path={`/join#${invite.data.code}`}
        />
      )}
      {trouble && (
        <Text role="alert" color="brick" mt="2">
          {troubleText(trouble)}
        </Text>
      )}
      <Box as="ul" listStyleType="none" p="0" mt="3">
        {open.data?.map((invitation) => (
          <Flex
            as="li"
            key={invitation.id}
            gap="3"
            align="center"
            py="1"
            borderTopWidth="1px"
            borderColor="line"
            data-invitation
          >
            <Box flex="1">
              {invitation.username ? `${invitation.username} is asked` : "A link is out"}
              <Box as="span" color="ink.second">
                {" "}
                · {ROLES[invitation.role]} · until {day(invitation.expires_at)}
              </Box>
            </Box>
            <Button size="sm" variant="ghost" onClick={() => withdraw.mutate(invitation.id)}>
              Take back
            </Button>
          </Flex>
        ))}
      </Box>
    </Box>
  );
}
