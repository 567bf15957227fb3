import { Box, Button, Flex, Heading, Input } from "@chakra-ui/react";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { type FormEvent, useId, useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import { answer, api, troubleText } from "../../api/client";
import { FieldLabel } from "../../ui/fields/FieldLabel";
import { TopBar, useBar } from "../../ui/frame/TopBar";
import { Unavailable } from "../../ui/frame/Unavailable";
import { useTitle } from "../../ui/frame/useTitle";
import { day } from "../../ui/when";
import { counted } from "../../words/counted";

/** Sets of exercises for a class: those there are, and a new one. */
export default function SetsScreen() {
  const { workshop = "" } = useParams();
  useTitle("Class sets");
  const sets = useQuery({
    queryKey: ["sets", workshop],
    queryFn: () => answer(api.GET("/api/workshops/{workshop}/sets/", { params: { path: { workshop } } })),
  });
  if (!sets.data && sets.failureReason)
    return (
      <Unavailable error={sets.failureReason} title="No class here">
        Sets of exercises are made by an owner of the workshop.
      </Unavailable>
    );
  return (
    <>
      <TopBar workshop={workshop} />
      <Box as="main" maxW="46rem" mx="auto" px="4" py="4">
        <Heading as="h1" size="xl" mb="1">
          Exercises for a class
        </Heading>
        <Box color="ink.second" mb="4">
          Pupils join with a code and a nickname, on any phone; they see nothing of the workshop.
        </Box>
        {sets.data && sets.data.length > 0 && (
          <Box as="ul" listStyleType="none" p="0" mb="6">
            {sets.data.map((set) => (
              <Flex
                as="li"
                key={set.id}
                gap="3"
                py="2"
                borderTopWidth="1px"
                borderColor="line"
                align="baseline"
                wrap="wrap"
              >
                <Box asChild flex="1" fontWeight="600" textDecoration="underline">
                  <Link to={`/sets/${set.id}`}>{set.name}</Link>
                </Box>
                <Box fontFamily="mono" fontWeight="700" letterSpacing="0.1em">
                  {set.code}
                </Box>
                <Box color="ink.second" fontSize="sm">
                  {counted(set.count, "exercise")}, {set.joined} joined, {day(set.made_at)}
                </Box>
              </Flex>
            ))}
          </Box>
        )}
        <NewSet workshop={workshop} />
      </Box>
    </>
  );
}

function NewSet({ workshop }: { workshop: string }) {
  const { preferences } = useBar();
  const navigate = useNavigate();
  const queries = useQueryClient();
  const map = useQuery({ queryKey: ["practice"], queryFn: () => answer(api.GET("/api/practice/")) });
  const [name, setName] = useState("");
  const [ideas, setIdeas] = useState<string[]>([]);
  const [levels, setLevels] = useState([1]);
  const [count, setCount] = useState("8");
  const [own, setOwn] = useState(false);
  const id = useId();
  const make = useMutation({
    mutationFn: () =>
      answer(
        api.POST("/api/workshops/{workshop}/sets/", {
          params: { path: { workshop } },
          body: {
            name: name.trim() || "Exercises",
            ideas: ideas as never,
            levels,
            count: Number(count),
            own_numbers: own,
            units: preferences.system,
          },
        }),
      ),
    onSuccess: (created) => {
      void queries.invalidateQueries({ queryKey: ["sets", workshop] });
      navigate(`/sets/${created.id}`);
    },
  });
  const submit = (event: FormEvent) => {
    event.preventDefault();
    make.mutate();
  };
  const toggle = <T,>(list: T[], one: T) =>
    list.includes(one) ? list.filter((other) => other !== one) : [...list, one];
  return (
    <Box as="form" onSubmit={submit} bg="panel" borderWidth="1px" borderColor="line" borderRadius="3px" p="4">
      <Heading as="h2" size="md" mb="3">
        A new set
      </Heading>
      <Flex gap="4" wrap="wrap">
        <Box flex="1" minW="12rem">
          <FieldLabel id={`${id}-name`}>Name</FieldLabel>
          <Input
            id={`${id}-name`}
            value={name}
            placeholder="Exercises"
            onChange={(event) => setName(event.target.value)}
          />
        </Box>
        <Box w="7rem">
          <FieldLabel id={`${id}-count`}>How many</FieldLabel>
          <Input
            id={`${id}-count`}
            type="number"
            min={1}
            max={40}
            value={count}
            onChange={(event) => setCount(event.target.value)}
          />
        </Box>
      </Flex>
      <Flex as="fieldset" mt="3" gap="2" wrap="wrap" data-set-ideas>
        <Box as="legend" fontSize="sm" color="ink.second">
          Ideas
        </Box>
        {map.data?.ideas.map((idea) => (
          <label key={idea.idea} className="tick" data-on={ideas.includes(idea.idea) || undefined}>
            <input
              type="checkbox"
              checked={ideas.includes(idea.idea)}
              onChange={() => setIdeas(toggle(ideas, idea.idea))}
            />
            {idea.idea}
          </label>
        ))}
      </Flex>
      <Flex mt="3" gap="2" wrap="wrap" align="center">
        <Box fontSize="sm" color="ink.second">
          Levels
        </Box>
        {[1, 2, 3].map((level) => (
          <label key={level} className="tick" data-on={levels.includes(level) || undefined}>
            <input
              type="checkbox"
              checked={levels.includes(level)}
              onChange={() => setLevels(toggle(levels, level))}
            />
            {level}
          </label>
        ))}
        <label className="tick" data-on={own || undefined}>
          <input type="checkbox" checked={own} onChange={() => setOwn(!own)} />
          each their own numbers
        </label>
      </Flex>
      {make.isError && (
        <Box role="alert" color="brick" mt="2">
          {troubleText(make.error)}
        </Box>
      )}
      <Button
        type="submit"
        variant="solid"
        size="lg"
        mt="4"
        loading={make.isPending}
        disabled={ideas.length === 0 || levels.length === 0}
      >
        Make the set
      </Button>
      {ideas.length === 0 && (
        <Box as="span" ml="3" color="ink.second" fontSize="sm">
          Choose at least one idea.
        </Box>
      )}
    </Box>
  );
}
