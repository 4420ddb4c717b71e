import MenuItem from "@mui/material/MenuItem";
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
    .map((f) => ({ name: `the colours as ${paletteWords[f]}`, href: address(f), page: false }));

/** What something leaves the house as: a page that is shown, or a file that is saved. */
export function TakeAlong({ of }: { of: { name: string; href: string; page: boolean }[] }) {
  return (
    <Choice label="take it along" bold={false} shown="take it along">
      {(close) =>
        of.map((a) => (
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
        ))
      }
    </Choice>
  );
}
