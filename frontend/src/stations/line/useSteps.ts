/** A wheel at another size by keys: from the bin, or any; and what the next keys lead to, asked about ahead of them. */
import { useEffect, useRef } from "react";
import type { Fit, Wheel } from "../../api/client";
import { useEdit, useFigures } from "../../document/context";
import { at, type DesignDocument, withValue } from "../../document/document";
import { isSelected } from "../../document/selected";
import { afterPaint } from "../../document/useAfterPaint";
import { nextSize, useKnownFits } from "./selected/useFits";

/** Sizes asked about beyond the present one while a key is held down: answers then come faster than it repeats. */
const FAR = 3;
const NONE: Fit[] = [];

/** A document with a wheel so many sizes larger; the same one where there is no such size. */
export function resized(document: DesignDocument, wheel: Wheel, fits: Fit[], by: number): DesignDocument {
  const teeth = Number(at(document, wheel.place));
  if (!Number.isFinite(teeth)) return document;
  const next = Math.max(wheel.least, nextSize(fits, teeth, by));
  return next === teeth ? document : withValue(document, wheel.place, next);
}

/**
 * Steps a wheel with teeth; tells whether there was another size. Sizes come from the bin; with `any`, and where the bin
 * has none, from all there are.
 */
export function useSteps(): (wheel: Wheel, by: number, any: boolean) => boolean {
  const { live, selected, held } = useFigures();
  const { edit, present, ahead } = useEdit();
  const knownFits = useKnownFits();
  const last = useRef({ by: 1, any: false });
  const wheels = live.view.line.rows.flatMap((row) => row.wheels);
  const wheel = wheels.find(
    (wheel) => wheel.teeth !== null && isSelected(selected, wheel.path, wheel.member),
  );
  // biome-ignore lint/correctness/useExhaustiveDependencies: asked anew with each answer, which brings new wheels
  useEffect(() => {
    if (!wheel) return;
    return afterPaint(() => {
      const { by, any } = last.current;
      const steps = held ? Array.from({ length: FAR }, (_, i) => by * (i + 1)) : [by, -by];
      const now = present();
      const fits = any ? NONE : knownFits(wheel.path);
      ahead(steps.map((step) => resized(now, wheel, fits, step)).filter((step) => step !== now));
    });
  }, [live, held, wheel?.place]);
  return (changed, by, any) => {
    const fits = any ? NONE : knownFits(changed.path);
    last.current = { by: Math.sign(by), any };
    const now = present();
    if (resized(now, changed, fits, by) === now) return false;
    edit((document) => resized(document, changed, fits, by));
    return true;
  };
}
