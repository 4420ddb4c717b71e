import useMediaQuery from "@mui/material/useMediaQuery";
import { useSyncExternalStore } from "react";
import { phoneRail, screens } from "../drawing/style";

const hear = (tell: () => void) => {
  window.addEventListener("resize", tell);
  return () => window.removeEventListener("resize", tell);
};

/** What stands beside a place on a phone, px. */
const margins = 32;

/** The smallest type, px. */
const smallest = 12.05;

/** Whether this is a phone and whether it lies on its side; how wide a place on it is, px. */
export function usePhone() {
  const phone = useMediaQuery(screens.phone, { noSsr: true });
  const lying = useMediaQuery(screens.lying, { noSsr: true });
  const whole = useSyncExternalStore(hear, () => window.innerWidth);
  const wide = whole - margins - (lying ? phoneRail.wide : 0);
  /** A size of type that is readable in a figure so many units wide, drawn over a share of the place or at the most so many px. */
  const type = (size: number, units: number, share = 1, most = Infinity) =>
    phone ? Math.max(size, (smallest * units) / Math.min(most, share * wide)) : size;
  return { phone, lying, wide, type };
}
