import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Link from "@mui/material/Link";
import Typography from "@mui/material/Typography";
import { Link as To } from "react-router";
import type { Import } from "../api/client";
import { grey } from "../drawing/style";
import { FileButton } from "../parts/FileButton";
import { FileRows, WrongRows } from "../parts/FileRows";
import { useFileRows } from "../parts/useFileRows";
import { PanelHead } from "./Pieces";

const kinds = [
  { format: "csv", name: "CSV", what: "a table: opens in any spreadsheet" },
  { format: "json", name: "JSON", what: "everything, with the curves of your own paints" },
  { format: "cgats", name: "CGATS", what: "spectra of masstones and 1:9 tints" },
  { format: "sp", name: "spectra", what: "the same, as colour tools compute from them" },
  { format: "gpl", name: "GIMP palette", what: "masstones and undertones as sRGB" },
] as const;

/** The box as files: out, and in after a look at every row. */
export function FilesPanel({
  show,
  onBrought,
  onClose,
}: {
  /** Where the box is shown to others. */
  show: string;
  onBrought: () => void;
  onClose: () => void;
}) {
  const file = useFileRows<Import>("box", onBrought);
  const rows = file.got?.rows ?? [];
  const coming = rows.filter((r) => r.happens === "added" || r.happens === "archived").length;
  const wrong = rows.filter((r) => r.happens === "refused");
  return (
    <Box
      component="section"
      aria-label="files"
      sx={{ display: "flex", flexDirection: "column", gap: 1.5 }}
    >
      <PanelHead title="Files" onClose={onClose} />
      <Box>
        <Typography variant="h3">Bring paints in</Typography>
        <Typography sx={{ mb: 1 }}>
          A box as CSV or JSON. Every row is shown before anything is kept.
        </Typography>
        <FileButton
          label="choose a box file"
          accept=".csv,.json,.txt,text/csv,application/json"
          onFile={file.choose}
        />
      </Box>
      {file.problem && (
        <Typography role="alert" sx={{ fontWeight: 500 }}>
          {file.problem}
        </Typography>
      )}
      {rows.length > 0 && (
        <Box>
          {file.got?.notes?.map((n) => (
            <Typography key={n} variant="body2" sx={{ color: grey.second }}>
              {n}
            </Typography>
          ))}
          <FileRows
            rows={rows.map((r) => ({
              ...r,
              detail: r.ci,
              chips: r.shown ? [r.shown] : [],
            }))}
            onToggle={file.toggle}
          />
          <WrongRows count={wrong.length} />
          <Box sx={{ display: "flex", gap: 1, mt: 1 }}>
            <Button
              variant="contained"
              disabled={wrong.length > 0 || coming === 0 || file.busy}
              onClick={file.keep}
            >
              {coming === 1 ? "add 1 paint" : `add ${coming} paints`}
            </Button>
            {wrong.length > 0 && (
              <Button color="inherit" onClick={() => file.leave(wrong.map((r) => r.row))}>
                leave out what is wrong
              </Button>
            )}
          </Box>
        </Box>
      )}
      <Box>
        <Typography variant="h3">Take the box along</Typography>
        {kinds.map((k) => (
          <Box key={k.format} sx={{ borderTop: `1px solid ${grey.hairline}`, py: 0.75 }}>
            <Link
              href={`/api/box/export?format=${k.format}`}
              download
              color="inherit"
              sx={{ fontWeight: 500, fontSize: 15 }}
            >
              {k.name}
            </Link>
            <Typography variant="body2" component="span" sx={{ color: grey.second, ml: 1 }}>
              {k.what}
            </Typography>
          </Box>
        ))}
        <Box sx={{ borderTop: `1px solid ${grey.hairline}`, py: 0.75 }}>
          <Link component={To} to={show} color="inherit" sx={{ fontWeight: 500, fontSize: 15 }}>
            show it to others
          </Link>
          <Typography variant="body2" component="span" sx={{ color: grey.second, ml: 1 }}>
            an address to look at it
          </Typography>
        </Box>
      </Box>
    </Box>
  );
}
