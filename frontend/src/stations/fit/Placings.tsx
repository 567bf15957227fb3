import { Box, Button } from "@chakra-ui/react";
import { useMutation } from "@tanstack/react-query";
import { useRef } from "react";
import { answer, api, troubleText } from "../../api/client";
import { useDocument, useEdit, usePlace } from "../../document/context";
import type { DesignDocument } from "../../document/document";
import { helped, placed, plateOf } from "../../document/mounting";
import { useUnits } from "../../ui/fields/units";
import { lengthText } from "./lengths";

/** Every way to put the shafts on the plate, the least error first; or what would make one. */
export function Placings({ behind }: { behind: string }) {
  const { workshop } = usePlace();
  const document = useDocument();
  const { edit, readOnly } = useEdit();
  const units = useUnits();
  const aborter = useRef<AbortController>(null);
  const search = useMutation({
    mutationFn: () => {
      aborter.current = new AbortController();
      return answer(
        api.POST("/api/workshops/{workshop}/fit/places/", {
          params: { path: { workshop } },
          body: { document: document as unknown as Record<string, unknown>, behind },
          signal: aborter.current.signal,
        }),
      );
    },
  });
  const cancel = () => {
    aborter.current?.abort();
    search.reset();
  };
  const text = (m: number) => lengthText(units, m);
  const found = search.data;
  const take = (change: (old: DesignDocument) => DesignDocument) => {
    edit(change);
    // What was found was about the design as it stood.
    search.reset();
  };
  return (
    <Box data-placings>
      <Button
        size="sm"
        variant="solid"
        disabled={!plateOf(document, behind).plate || search.isPending}
        onClick={() => search.mutate()}
        data-find-places
      >
        Find every way to place the shafts
      </Button>
      {search.isPending && (
        <Button size="sm" ml="2" onClick={cancel}>
          Looking … cancel
        </Button>
      )}
      <Box fontSize="13px" color="ink.second" mt="1">
        Fixed shafts and tensioners stay; shafts on holes may take any; slots are set. A loop without a length
        of its own is tried with every length at hand.
      </Box>
      {search.isError && (
        <Box role="alert" color="brick" mt="2">
          {troubleText(search.error)}
        </Box>
      )}
      {found && found.count === 0 && (
        <Box mt="2">
          <Box fontWeight="600">
            {found.more ? "Among those looked at, no way places them all." : "No way places them all."}
          </Box>
          {found.more && (
            <Box>There are too many to look at each: fix a shaft, or say where fewer may stand.</Box>
          )}
          {found.helps.length > 0 ? (
            <>
              <Box>Any one of these would help:</Box>
              <ul>
                {found.helps.map((help) => (
                  <li key={help.text} data-help>
                    {help.text}{" "}
                    <Button
                      size="xs"
                      disabled={readOnly}
                      onClick={() => take((old) => helped(units.kinds, old, help))}
                    >
                      Take that
                    </Button>
                  </li>
                ))}
              </ul>
            </>
          ) : found.more ? null : (
            <Box>No single change helps: at least two things stand in the way.</Box>
          )}
        </Box>
      )}
      {found && found.count > 0 && (
        <Box as="table" className="rows" mt="2" w="100%">
          <thead>
            <tr>
              <th scope="col">way</th>
              <th scope="col">off the best, in all</th>
              <th scope="col">slot left</th>
              <th scope="col">across and up</th>
              <th scope="col">lengths</th>
              <th scope="col"> </th>
            </tr>
          </thead>
          <tbody>
            {found.ways.slice(0, 20).map((way, i) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: ways are told by their rank
              <tr key={i} data-way={i}>
                <td>{`${i + 1} of ${found.more ? "more than " : ""}${found.count}`}</td>
                <td>{text(way.error)}</td>
                <td>{way.room === null ? "–" : text(way.room)}</td>
                <td>{text(way.size)}</td>
                <td>{Object.values(way.lengths).join(", ") || "–"}</td>
                <td>
                  <Button
                    size="xs"
                    disabled={readOnly}
                    onClick={() => take((old) => placed(units.kinds, old, way.at, way.lengths))}
                  >
                    Place so
                  </Button>
                </td>
              </tr>
            ))}
          </tbody>
        </Box>
      )}
    </Box>
  );
}
