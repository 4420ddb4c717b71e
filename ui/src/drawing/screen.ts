import { useSyncExternalStore } from "react";
import type { Shown } from "./shapes";

/** Whether this screen shows Display P3. */
const wide = window.matchMedia("(color-gamut: p3)");

/** A paint's colour as this screen can best show it. */
export const fill = (c: Shown): string => (wide.matches && c.p3) || c.srgb;

/** Whether even this screen shows less than the paint has. */
export const cut = (c: Shown): boolean => (wide.matches ? !!c.clippedP3 : c.clipped);

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
