import MenuItem from "@mui/material/MenuItem";
import { Link as To } from "react-router";
import { Choice } from "./Choice";

/** The files that colours leave as. */
const paletteWords = {
  gpl: "a GIMP palette",
  csv: "a table (CSV)",
  json: "JSON",
  cgats: "CGATS",
  sp: "spectra, for colour tools",
  svg: "a drawing (SVG)",
} as const;

/** The colours of something as files, each under the address that gives it. */
export const colourFiles = (address: (format: string) => string, spectra = true) =>
  (Object.keys(paletteWords) as (keyof typeof paletteWords)[])
    .filter((f) => spectra || f !== "sp")
    .map((f) => ({ name: `the colours as ${paletteWords[f]}`, href: address(f) }));

/** A file that is saved or, with `page`, shown; or with `to` a place of the house. */
type Along = { name: string; page?: boolean } & ({ href: string } | { to: string });

/** What something leaves the house as. */
export function TakeAlong({ of }: { of: Along[] }) {
  return (
    <Choice label="take it along" bold={false} shown="take it along">
      {(close) =>
        of.map((a) =>
          "to" in a ? (
            <MenuItem key={a.name} component={To} to={a.to} onClick={close}>
              {a.name}
            </MenuItem>
          ) : (
            <MenuItem
              key={a.name}
              component="a"
              href={a.href}
              target={a.page ? "_blank" : undefined}
              download={!a.page}
              onClick={close}
            >
              {a.name}
            </MenuItem>
          ),
        )
      }
    </Choice>
  );
}
