import { Box, Button, Flex } from "@chakra-ui/react";
import type { OnPlate, PlanShaft, Section } from "../../api/client";
import { useDocument, useEdit } from "../../document/context";
import { Field, Switch, Words } from "../../document/Field";
import { type Stack, shaftIndex, shaftOf, withShaft } from "../../document/mounting";
import { BRICK, INK, PANEL, SECOND, SPRUCE, WASH } from "../../drawing/colours";
import { SvgText } from "../../drawing/SvgText";
import { useWidth } from "../../drawing/useWidth";
import { type Units, useUnits } from "../../ui/fields/units";
import { lengthText } from "./lengths";

interface Props {
  fit: OnPlate;
  shaft: PlanShaft | null;
  onFill: () => void;
}

/** The chosen shaft cut along its length: what is on it between two faces, and what is missing. */
export function SectionView({ fit, shaft, onFill }: Props) {
  const document = useDocument();
  const { edit, set, readOnly } = useEdit();
  if (!shaft) return <Box>Choose a shaft on the plan.</Box>;
  const section = fit.sections.find((entry) => entry.shaft === shaft.path);
  const stack = shaftOf(document, shaft.path)?.stack;
  if (!section || !stack)
    return (
      <Box>
        <Box mb="2">Nothing is said yet of what is on the {shaft.name} between its two faces.</Box>
        <Button
          size="sm"
          disabled={readOnly}
          onClick={() => edit((old) => withShaft(old, shaft.path, { stack: firstStack(fit, shaft) }))}
        >
          Begin with its wheels
        </Button>
      </Box>
    );
  const path = `fit.shafts[${shaftIndex(document, shaft.path)}].stack`;
  return (
    <Box data-section={shaft.path}>
      <Cut section={section} diameter={shaft.diameter} />
      <Verdict section={section} onFill={onFill} readOnly={readOnly} />
      <Flex gap="2" wrap="wrap" align="end">
        <Box w="130px">
          <Field path={`${path}.between`} label="from face to face" dimension="length" />
        </Box>
      </Flex>
      {stack.items?.map((item, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: an item is its place on the shaft
        <Flex key={i} gap="2" align="end" mt="1" wrap="wrap">
          <Box w="190px">
            <Words path={`${path}.items[${i}].name`} label={item.spacer ? "spacer" : "item"} />
          </Box>
          <Box w="104px">
            <Field path={`${path}.items[${i}].width`} label="width" dimension="length" />
          </Box>
          {!item.spacer && (
            <Box w="130px">
              <Field path={`${path}.items[${i}].at`} label="begins at" dimension="length" optional />
            </Box>
          )}
          {!item.spacer && !item.wheel && (
            <Switch path={`${path}.items[${i}].bearing`} label="carries the shaft" />
          )}
          {item.bearing && (
            <>
              <Box w="104px">
                <Field
                  path={`${path}.items[${i}].outside`}
                  label="across outside"
                  dimension="length"
                  optional
                />
              </Box>
              <Box w="104px">
                <Field
                  path={`${path}.items[${i}].load_rating`}
                  label="load rating"
                  dimension="force"
                  optional
                />
              </Box>
            </>
          )}
          <Button size="xs" disabled={readOnly} onClick={() => set(`${path}.items[${i}]`, undefined)}>
            Remove
          </Button>
        </Flex>
      ))}
      <Button
        size="xs"
        mt="2"
        disabled={readOnly}
        onClick={() => set(`${path}.items[${stack.items?.length ?? 0}]`, BEARING)}
      >
        Add an item
      </Button>
    </Box>
  );
}

/** What carries a shaft says so by itself: a name alone tells nobody. */
const BEARING = { name: "bearing", width: "7 mm", bearing: true };

/** Two bearings and the shaft's wheels, each with a usual width, to be changed. */
function firstStack(fit: OnPlate, shaft: PlanShaft): Stack {
  const wheels = shaft.wheels.flatMap((i) => fit.plan.wheels[i] ?? []);
  const items = wheels.map((w, i) => ({
    name: shaft.carries[i],
    width: "10 mm",
    wheel: `${w.path} ${w.member}`,
  }));
  return { between: "60 mm", items: [BEARING, ...items, BEARING] };
}

interface VerdictProps {
  section: Section;
  readOnly: boolean;
  onFill: () => void;
}

function Verdict({ section, readOnly, onFill }: VerdictProps) {
  const units = useUnits();
  const said = (m: number) => lengthText(units, Math.abs(m));
  return (
    <Flex gap="3" align="center" my="2" wrap="wrap" data-section-error={section.error}>
      <Box fontWeight="600">
        {section.overlap > 0
          ? `Too long: ${said(section.overlap)} overlap`
          : section.error < 0
            ? `Gap of ${said(section.error)} where it is widest`
            : "Full: nothing moves along the shaft"}
      </Box>
      {section.filled && section.error !== 0 && (
        <>
          <Button size="sm" variant="solid" disabled={readOnly} onClick={onFill} title="F" data-fill>
            Fill the gaps from the spacers at hand
          </Button>
          <Box fontSize="13px" color="ink.second">
            {section.filled_error === 0
              ? "exactly"
              : `to ${said(section.filled_error)} ${section.filled_error > 0 ? "too thick" : "too thin"}`}
          </Box>
        </>
      )}
      {section.error < 0 && !section.filled && (
        <Box fontSize="13px" color="ink.second">
          the bin has no spacer for this shaft
        </Box>
      )}
      {section.protrudes !== null && (
        <Box fontSize="13px" color="ink.second">
          {section.protrudes >= 0
            ? `the shaft stands out by ${said(section.protrudes)}`
            : `the shaft ends ${said(section.protrudes)} before the second face`}
        </Box>
      )}
    </Flex>
  );
}

const HIGH = 120;

/** To scale along the shaft; heights are symbols. */
function Cut({ section, diameter }: { section: Section; diameter: number }) {
  const [ref, width] = useWidth<HTMLDivElement>(700);
  const units = useUnits();
  const room = width - 40;
  const end = Math.max(section.between, ...section.items.map((item) => item.end));
  const x = (m: number) => 20 + (room * m) / end;
  const middle = HIGH / 2;
  return (
    <div ref={ref}>
      <svg width={width} height={HIGH} role="img" aria-label={sectionWords(units, section)}>
        <path d={`M 6 ${middle} H ${width - 6}`} stroke={SECOND} strokeDasharray="9 3 2 3" />
        <rect
          x={10}
          y={middle - 6}
          width={width - 20}
          height={12}
          fill={PANEL}
          stroke={INK}
          strokeWidth={diameter ? 1.2 : 0.8}
        />
        {[0, section.between].map((face) => (
          <rect key={face} x={x(face) - (face ? 0 : 7)} y={8} width={7} height={HIGH - 16} fill={SECOND} />
        ))}
        {section.items.map((item, i) => {
          const tall = item.spacer ? 26 : item.wheel ? 84 : 48;
          return (
            // biome-ignore lint/suspicious/noArrayIndexKey: an item is its place on the shaft
            <g key={i}>
              <rect
                x={x(item.start)}
                y={middle - tall / 2}
                width={Math.max(1, x(item.end) - x(item.start))}
                height={tall}
                fill={item.spacer ? WASH : PANEL}
                stroke={item.end > section.between + 1e-9 ? BRICK : item.spacer ? SPRUCE : INK}
                strokeWidth={1.4}
              />
              {x(item.end) - x(item.start) > 34 && (
                <SvgText
                  x={(x(item.start) + x(item.end)) / 2}
                  y={middle + tall / 2 + 13}
                  size={11}
                  fill={SECOND}
                >
                  {item.name}
                </SvgText>
              )}
            </g>
          );
        })}
      </svg>
    </div>
  );
}

const sectionWords = (units: Units, section: Section) =>
  `From face to face ${lengthText(units, section.between)}: ${section.items
    .map((item) => `${item.name} from ${lengthText(units, item.start)} to ${lengthText(units, item.end)}`)
    .join(", ")}`;
