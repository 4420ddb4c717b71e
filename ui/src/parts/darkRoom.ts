import { createContext, useContext, useEffect } from "react";

/** Makes the page dark, or as its painter has chosen again. */
export const DarkRoom = createContext<(on: boolean) => void>(() => undefined);

/** Makes the page dark as long as something is drawn that stands on a wall. */
export function useDarkRoom() {
  const darken = useContext(DarkRoom);
  useEffect(() => {
    darken(true);
    return () => darken(false);
  }, [darken]);
}
