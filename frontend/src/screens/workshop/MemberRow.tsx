import { Box, Button, Flex } from "@chakra-ui/react";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api, type Member, type Role, troubleText } from "../../api/client";
import { AskAgain } from "../../ui/AskAgain";
import { ToldOnce } from "../../ui/ToldOnce";
import { RoleSelect } from "./RoleSelect";

interface Props {
  workshop: string;
  member: Member;
  /** Whether it is oneself, whose place is left below. */
  self: boolean;
}

/** A member as an owner sees them: their role, and what else can be done. */
export function MemberRow({ workshop, member, self }: Props) {
  const queries = useQueryClient();
  const [more, setMore] = useState(false);
  const params = { path: { workshop, member: member.id } };
  const again = () => queries.invalidateQueries({ queryKey: ["members", workshop] });
  const role = useMutation({
    mutationFn: (next: Role) =>
      answer(
        api.PATCH("/api/workshops/{workshop}/members/{member}/", {
          params,
          body: { role: next },
        }) as Promise<never>,
      ),
    onSettled: again,
  });
  const remove = useMutation({
    mutationFn: () => answer(api.DELETE("/api/workshops/{workshop}/members/{member}/", { params })),
    onSettled: again,
  });
  const reset = useMutation({
    mutationFn: () => answer(api.POST("/api/workshops/{workshop}/members/{member}/reset/", { params })),
  });
  const handOver = useMutation({
    mutationFn: () =>
      answer(
        api.POST("/api/workshops/{workshop}/handing-over/", {
          params: { path: { workshop } },
          body: { member: member.id },
        }),
      ),
    onSuccess: () =>
      Promise.all([
        again(),
        queries.invalidateQueries({ queryKey: ["workshop", workshop] }),
        queries.invalidateQueries({ queryKey: ["workshops"] }),
      ]),
  });
  const trouble = role.error ?? remove.error ?? reset.error ?? handOver.error;
  return (
    <Box as="li" py="2" borderTopWidth="1px" borderColor="line" data-member={member.username}>
      <Flex gap="3" align="center" wrap="wrap">
        <Box flex="1" fontWeight="600">
          {member.username}
          {self && (
            <Box as="span" fontWeight="400" color="ink.second">
              {" "}
              (you)
            </Box>
          )}
        </Box>
        <RoleSelect
          label={`Role of ${member.username}`}
          value={member.role}
          onChange={(next) => role.mutate(next)}
        />
        {!self && (
          <Button
            size="sm"
            variant="ghost"
            aria-expanded={more}
            aria-label={`More for ${member.username}`}
            onClick={() => setMore(!more)}
          >
            ⋯
          </Button>
        )}
      </Flex>
      {more && (
        <Flex gap="2" mt="2" wrap="wrap">
          <Button size="sm" loading={reset.isPending} onClick={() => reset.mutate()}>
            They forgot their password
          </Button>
          <AskAgain
            size="sm"
            ask="Hand the workshop over"
            sure={`Yes: ${member.username} owns it, I stay an editor`}
            loading={handOver.isPending}
            onSure={() => handOver.mutate()}
          />
          <AskAgain
            size="sm"
            ask="Remove"
            sure={`Yes: ${member.username} sees it no more`}
            loading={remove.isPending}
            onSure={() => remove.mutate()}
          />
        </Flex>
      )}
      {reset.data && (
        <ToldOnce
          label={`Link for a new password of ${member.username}`}
          words={`Give this to ${member.username}: good once, and for a day.`}
          path={`/reset#${reset.data.code}`}
        />
      )}
      {trouble && (
        <Box role="alert" color="brick" fontSize="sm" mt="1">
          {troubleText(trouble)}
        </Box>
      )}
    </Box>
  );
}
