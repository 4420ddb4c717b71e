import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useQueryClient } from "@tanstack/react-query";
import type { Schemas, Sitting } from "../api/client";
import { sittingReadsQuery } from "../api/queries";
import { FileButton } from "../parts/FileButton";
import { FileRows, WrongRows } from "../parts/FileRows";
import { useFileRows } from "../parts/useFileRows";

/** Readings from a table: every row is shown beside what is computed before anything is kept. */
export function ByFile({ sitting }: { sitting: Sitting }) {
  const queries = useQueryClient();
  const file = useFileRows<Schemas["SlotsRead"]>(`sittings/${sitting.id}/readings`, () => {
    void queries.invalidateQueries(sittingReadsQuery(sitting.id));
  });
  const rows = file.got?.rows ?? [];
  const left = (row: number) => file.leaveOut.includes(row);
  const wrong = rows.filter((r) => r.problem && !left(r.row));
  const coming = rows.filter((r) => !r.problem && !left(r.row)).length;
  return (
    <Box component="section" aria-label="from a file">
      <Typography sx={{ mb: 1 }}>
        A table (CSV) with the columns slot, L, a, b and state, wet or dry; CIELAB in daylight.
        Source, spread and doubt are read where they are there.
      </Typography>
      <FileButton
        label="choose a file of readings"
        accept=".csv,.txt,text/csv"
        onFile={file.choose}
      />
      {file.problem && (
        <Typography role="alert" sx={{ fontWeight: 500, mt: 1 }}>
          {file.problem}
        </Typography>
      )}
      {file.kept && !file.problem && (
        <Typography role="status" sx={{ mt: 1 }}>
          Kept, beside what was read before.
        </Typography>
      )}
      {rows.length > 0 && !file.kept && (
        <Box sx={{ mt: 2 }}>
          <FileRows
            rows={rows.map((r) => ({
              row: r.row,
              where: `line ${r.line}`,
              name: r.label || r.slot,
              detail: r.problem
                ? ""
                : `${r.lab.join(", ")} · ${r.wet ? "wet" : "dry"}, ${r.source}`,
              chips: r.computed && r.shown ? [r.computed, r.shown] : [],
              happens: left(r.row) ? "left out" : r.problem ? "refused" : "kept",
              remark: r.problem || `${r.difference} from the computed`,
            }))}
            onToggle={file.toggle}
          />
          <WrongRows count={wrong.length} />
          <Box sx={{ display: "flex", gap: 1, mt: 1, "& button": { minHeight: 56 } }}>
            <Button
              variant="contained"
              disabled={wrong.length > 0 || coming === 0 || file.busy}
              onClick={file.keep}
            >
              keep {coming === 1 ? "one reading" : `${coming} readings`}
            </Button>
            {wrong.length > 0 && (
              <Button color="inherit" onClick={() => file.leave(wrong.map((r) => r.row))}>
                leave out what is wrong
              </Button>
            )}
          </Box>
        </Box>
      )}
    </Box>
  );
}
