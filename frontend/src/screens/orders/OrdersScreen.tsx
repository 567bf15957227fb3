import { Box, Button, Flex } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useParams } from "react-router";
import { answer, api, troubleText } from "../../api/client";
import { DownloadLink } from "../../ui/DownloadLink";
import { TopBar } from "../../ui/frame/TopBar";
import { money } from "../../ui/money";
import { clockNow } from "../../ui/when";

/** One order list for several vehicles of a bench. */
export default function OrdersScreen() {
  const { workshop = "" } = useParams();
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const path = { workshop };
  const vehicles = useQuery({
    queryKey: ["vehicles", workshop],
    queryFn: () => answer(api.GET("/api/workshops/{workshop}/vehicles/", { params: { path } })),
  });
  const onBench = (vehicles.data ?? []).filter((row) => !row.put_away);
  const wanted = onBench.filter((one) => !left.has(one.id)).map((one) => one.id);
  const orders = useQuery({
    queryKey: ["orders", workshop, wanted],
    queryFn: () => {
      const query = { now: clockNow(), vehicle: wanted };
      return answer(api.GET("/api/workshops/{workshop}/orders/", { params: { path, query } }));
    },
    enabled: wanted.length > 0,
    placeholderData: (old) => old,
  });
  const shown = wanted.length ? orders.data : undefined;
  const query = wanted.map((id) => `vehicle=${id}`).join("&");
  return (
    <>
      <TopBar workshop={workshop}>
        <Box as="h1" fontWeight="600">
          Order list
        </Box>
      </TopBar>
      <Box as="main" p="3" maxW="960px" data-orders={shown?.lines.length ?? 0}>
        <Flex gap="2" wrap="wrap" role="group" aria-label="For which vehicles" data-screen-only>
          {onBench.map((one) => (
            <label key={one.id} className="tick" data-on={!left.has(one.id) || undefined}>
              <input
                type="checkbox"
                checked={!left.has(one.id)}
                onChange={() => {
                  const next = new Set(left);
                  if (!next.delete(one.id)) next.add(one.id);
                  setLeft(next);
                }}
              />
              <b>{one.name}</b>
            </label>
          ))}
        </Flex>
        {shown && (
          <>
            <Flex align="flex-end" gap="4" my="3" wrap="wrap">
              <Box>
                <Box fontSize="sm" color="ink.second">
                  to order, in all
                </Box>
                <Box fontFamily="mono" fontSize="28px" fontWeight="700" lineHeight="1.1">
                  {money(shown.price)}
                </Box>
              </Box>
              {shown.unpriced.length > 0 && (
                <Box fontSize="sm" color="ink.second">{`${shown.unpriced.length} without a price`}</Box>
              )}
              <Flex gap="1" ml="auto" data-screen-only>
                {["csv", "xlsx"].map((suffix) => (
                  <Button key={suffix} size="xs" asChild>
                    <DownloadLink href={`/api/workshops/${workshop}/orders/export/${suffix}/?${query}`}>
                      {`Save as ${suffix.toUpperCase()}`}
                    </DownloadLink>
                  </Button>
                ))}
                <Button size="xs" onClick={() => window.print()}>
                  Print
                </Button>
              </Flex>
            </Flex>
            <table className="parts">
              <thead>
                <tr>
                  <th scope="col">what</th>
                  <th scope="col">number</th>
                  <th scope="col">for</th>
                  <th scope="col">price</th>
                  <th scope="col">days</th>
                </tr>
              </thead>
              <tbody>
                {shown.lines.map((line) => (
                  <tr key={line.key}>
                    <th scope="row">{line.words}</th>
                    <td className="figure">{line.number}</td>
                    <td>{line.vehicles.join(", ")}</td>
                    <td className="figure">{line.price === null ? "–" : money(line.price)}</td>
                    <td className="figure">{line.lead_days}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          </>
        )}
        {(shown?.lines.length === 0 || wanted.length === 0) && (
          <Box mt="3">
            {wanted.length ? "Nothing is to be ordered." : "Choose a vehicle."}{" "}
            <Link to="/">Go to the bench</Link>
          </Box>
        )}
        {orders.isError && <Box role="alert">{troubleText(orders.error)}</Box>}
      </Box>
    </>
  );
}
