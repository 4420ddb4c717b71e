import { useSyncExternalStore } from "react";
import type { Shown } from "./shapes";

/** Whether this screen shows Display P3. */
const wide = window.matchMedia("(color-gamut: p3)");

let squinting = false;
const watching = new Set<() => void>();

/** A paint's colour as this screen can best show it; while squinting its lightness alone. */
export const fill = (c: Shown): string =>
  squinting ? `lab(${c.l} 0 0)` : (wide.matches && c.p3) || c.srgb;

/** Whether even this screen shows less than the paint has. */
export const cut = (c: Shown): boolean => !squinting && (wide.matches ? !!c.clippedP3 : c.clipped);

/** Shows all figures by lightness alone, or as they are again; photos by a filter of the page. */
export function squint(on: boolean) {
  squinting = on;
  document.documentElement.toggleAttribute("data-squint", on);
  for (const tell of watching) tell();
}

const watch = (tell: () => void) => {
  watching.add(tell);
  return () => watching.delete(tell);
};

/** Draws anew when one begins or ends to squint. */
export const useSquint = () => useSyncExternalStore(watch, () => squinting);

/** Draws anew when the page moves to a screen of another kind. */
export function useScreen() {
  return useSyncExternalStore(
    (tell) => {
      wide.addEventListener("change", tell);
      return () => wide.removeEventListener("change", tell);
    },
    () => wide.matches,
  );
}
