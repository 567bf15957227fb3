import { Box, Button, Flex, Input } from "@chakra-ui/react";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api, type BuildStep, troubleText } from "../../api/client";
import { usePlace } from "../../document/context";
import { newId } from "../../document/newId";
import type { BookOf, OwnStep } from "../../document/useBook";
import { counted } from "../../words/counted";
import { FRAME } from "../shared/frame";

const EMPTY = { title: "", minutes: "15 min", wait: "" };

interface Props {
  book: BookOf;
  steps: BuildStep[];
  /** The step before which a new one comes to stand. */
  after: string;
}

/** Own steps between the made ones, and templates of them in the workshop. */
export function OwnStepForm({ book, steps, after }: Props) {
  const [open, setOpen] = useState(false);
  const [typed, setTyped] = useState(EMPTY);
  const own = book.book.steps ?? [];
  const put = (key: keyof typeof EMPTY) => (event: React.ChangeEvent<HTMLInputElement>) =>
    setTyped({ ...typed, [key]: event.target.value });
  const add = async () => {
    const at = steps.findIndex((step) => step.id === after);
    const before = steps[at - 1]?.id;
    const step: OwnStep = { id: `own-${newId().slice(0, 8)}`, title: typed.title.trim() };
    if (before) step.after = before;
    if (typed.minutes.trim()) step.minutes = typed.minutes.trim();
    if (typed.wait.trim()) step.wait = typed.wait.trim();
    if (await book.change((old) => ({ ...old, steps: [...(old.steps ?? []), step] }))) setTyped(EMPTY);
  };
  const drop = (id: string) =>
    void book.change((old) => ({ ...old, steps: (old.steps ?? []).filter((step) => step.id !== id) }));
  return (
    <Box {...FRAME} data-own-steps data-screen-only>
      <button type="button" className="quiet" aria-expanded={open} onClick={() => setOpen(!open)}>
        {own.length ? `Own steps: ${own.length}` : "Add a step of your own"}
      </button>
      {open && (
        <>
          {own.map((step) => (
            <Flex key={step.id} gap="2" align="baseline">
              <Box flex="1">{step.title}</Box>
              <button
                type="button"
                className="quiet"
                aria-label={`Take out ${step.title}`}
                onClick={() => drop(step.id)}
              >
                take out
              </button>
            </Flex>
          ))}
          <form
            onSubmit={(event) => {
              event.preventDefault();
              void add();
            }}
          >
            <Flex gap="1" mt="1" wrap="wrap" align="flex-end">
              <Box as="label" fontSize="sm" flex="1 1 240px">
                what to do, before the step that is shown
                <Input fontFamily="body" value={typed.title} onChange={put("title")} />
              </Box>
              <Box as="label" fontSize="sm" w="90px">
                takes
                <Input value={typed.minutes} onChange={put("minutes")} />
              </Box>
              <Box as="label" fontSize="sm" w="90px">
                then waits
                <Input placeholder="such as 12 h" value={typed.wait} onChange={put("wait")} />
              </Box>
              <Button type="submit" disabled={!typed.title.trim()}>
                Add
              </Button>
            </Flex>
          </form>
          <Templates own={own} book={book} />
          {book.trouble && (
            <Box role="alert" color="brick">
              {book.trouble}
            </Box>
          )}
        </>
      )}
    </Box>
  );
}

/** Own steps kept in the workshop under a name, and taken from there. */
function Templates({ own, book }: { own: OwnStep[]; book: BookOf }) {
  const { workshop } = usePlace();
  const queries = useQueryClient();
  const [name, setName] = useState("");
  const [words, setWords] = useState("");
  const path = { workshop };
  const kept = useQuery({
    queryKey: ["step-templates", workshop],
    queryFn: () => answer(api.GET("/api/workshops/{workshop}/step-templates/", { params: { path } })),
  });
  const keep = async () => {
    try {
      const body = { name: name.trim(), steps: own as unknown as Record<string, unknown>[] };
      await answer(api.POST("/api/workshops/{workshop}/step-templates/", { params: { path }, body }));
      setName("");
      setWords(`Kept as “${body.name}”.`);
      void queries.invalidateQueries({ queryKey: ["step-templates", workshop] });
    } catch (error) {
      setWords(troubleText(error));
    }
  };
  const take = (steps: OwnStep[]) =>
    void book.change((old) => {
      const known = new Set((old.steps ?? []).map((step) => step.id));
      return { ...old, steps: [...(old.steps ?? []), ...steps.filter((step) => !known.has(step.id))] };
    });
  return (
    <Flex gap="1" mt="2" wrap="wrap" align="flex-end" data-templates>
      {kept.data?.map((template) => (
        <Button key={template.id} size="xs" onClick={() => take(template.steps as unknown as OwnStep[])}>
          {`Take “${template.name}”, ${counted(template.steps.length, "step")}`}
        </Button>
      ))}
      {own.length > 0 && (
        <>
          <Input
            aria-label="Name of the template"
            placeholder="keep these as"
            w="150px"
            value={name}
            onChange={(event) => setName(event.target.value)}
          />
          <Button size="xs" disabled={!name.trim()} onClick={() => void keep()}>
            Keep as a template
          </Button>
        </>
      )}
      {words && (
        <Box role="status" fontSize="sm">
          {words}
        </Box>
      )}
    </Flex>
  );
}
