import { useSyncExternalStore } from "react";
import type { Shown } from "./shapes";

/** Whether this screen shows Display P3. */
const wide = window.matchMedia("(color-gamut: p3)");

/** How paints' colours are shown. */
export type Colours = {
  /** A paint's colour as this screen can best show it; while squinting its lightness alone. */
  fill: (c: Shown) => string;
  /** Whether even this screen shows less than the paint has. */
  cut: (c: Shown) => boolean;
};

const byLightness: Colours = { fill: (c) => `lab(${c.l} 0 0)`, cut: () => false };
const inP3: Colours = { fill: (c) => c.p3 || c.srgb, cut: (c) => !!c.clippedP3 };
const inSRGB: Colours = { fill: (c) => c.srgb, cut: (c) => c.clipped };

let squinting = false;
const watching = new Set<() => void>();

/** Shows all figures by lightness alone, or as they are again; photos by a filter of the page. */
export function squint(on: boolean) {
  squinting = on;
  document.documentElement.toggleAttribute("data-squint", on);
  for (const tell of watching) tell();
}

const watch = (tell: () => void) => {
  watching.add(tell);
  wide.addEventListener("change", tell);
  return () => {
    watching.delete(tell);
    wide.removeEventListener("change", tell);
  };
};

/** Whether one squints; draws anew when that begins or ends. */
export const useSquint = () => useSyncExternalStore(watch, () => squinting);

/** How paints' colours are shown now; draws anew when one squints, or moves the page to another screen. */
export const useColours = (): Colours =>
  useSyncExternalStore(watch, () => (squinting ? byLightness : wide.matches ? inP3 : inSRGB));
