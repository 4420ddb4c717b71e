import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Link from "@mui/material/Link";
import Typography from "@mui/material/Typography";
import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { sendFile, type Import } from "../api/client";
import { figures, grey } from "../drawing/style";
import { FileButton } from "../parts/FileButton";
import { fill } from "../drawing/screen";
import { PanelHead } from "./Pieces";

const kinds = [
  { format: "csv", name: "CSV", what: "a table: opens in any spreadsheet" },
  { format: "json", name: "JSON", what: "everything, with the curves of your own paints" },
  { format: "cgats", name: "CGATS", what: "spectra of masstones and 1:9 tints" },
  { format: "gpl", name: "GIMP palette", what: "masstones and undertones as sRGB" },
] as const;

/** The box as files: out, and in after a look at every row. */
export function FilesPanel({ onBrought, onClose }: { onBrought: () => void; onClose: () => void }) {
  const [file, setFile] = useState<File | null>(null);
  const [leaveOut, setLeaveOut] = useState<number[]>([]);
  const send = (f: File, left: number[], keep: boolean) =>
    sendFile<Import>("box", f, { keep: String(keep), leaveOut: left.map(String) });
  const look = useMutation({
    mutationFn: ({ f, left }: { f: File; left: number[] }) => send(f, left, false),
  });
  const bring = useMutation({
    mutationFn: ({ f, left }: { f: File; left: number[] }) => send(f, left, true),
    onSuccess: onBrought,
  });
  const choose = (f: File) => {
    setFile(f);
    setLeaveOut([]);
    bring.reset();
    look.mutate({ f, left: [] });
  };
  const toggle = (row: number) => {
    const left = leaveOut.includes(row) ? leaveOut.filter((r) => r !== row) : [...leaveOut, row];
    setLeaveOut(left);
    bring.reset();
    if (file) look.mutate({ f: file, left });
  };
  const rows = look.data?.rows ?? [];
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
          onFile={choose}
        />
      </Box>
      {(look.error ?? bring.error) && (
        <Typography role="alert" sx={{ fontWeight: 500 }}>
          {file?.name}: {(bring.error ?? look.error)?.message}
        </Typography>
      )}
      {rows.length > 0 && (
        <Box>
          {look.data?.notes?.map((n) => (
            <Typography key={n} variant="body2" sx={{ color: grey.second }}>
              {n}
            </Typography>
          ))}
          <Box
            component="ul"
            aria-label="rows of the file"
            sx={{
              m: 0,
              p: 0,
              listStyle: "none",
              maxHeight: 300,
              overflowY: "auto",
              borderTop: `2px solid ${grey.ink}`,
            }}
          >
            {rows.map((r) => (
              <Box
                component="li"
                key={r.row}
                sx={{
                  display: "flex",
                  gap: 1,
                  alignItems: "flex-start",
                  py: 0.75,
                  borderBottom: `1px solid ${grey.hairline}`,
                  color: r.happens === "left out" ? grey.third : grey.ink,
                }}
              >
                <svg width={22} height={22} aria-hidden style={{ flex: "none" }}>
                  {r.shown ? (
                    <rect width={22} height={22} fill={fill(r.shown)} />
                  ) : (
                    <rect
                      x={0.5}
                      y={0.5}
                      width={21}
                      height={21}
                      fill="none"
                      stroke={grey.mark}
                      strokeDasharray="3 3"
                    />
                  )}
                </svg>
                <Box sx={{ flex: 1, minWidth: 0 }}>
                  <Typography variant="body2" sx={{ fontWeight: 500, overflowWrap: "anywhere" }}>
                    {r.name || "?"}{" "}
                    <Box
                      component="span"
                      sx={{ fontFamily: figures, fontWeight: 400, fontSize: 12, color: grey.third }}
                    >
                      {r.ci} · {r.where}
                    </Box>
                  </Typography>
                  <Typography variant="body2" sx={{ color: grey.second, overflowWrap: "anywhere" }}>
                    <b>{r.happens}</b>
                    {r.remark && `: ${r.remark}`}
                  </Typography>
                </Box>
                <Button
                  size="small"
                  color="inherit"
                  onClick={() => toggle(r.row)}
                  aria-label={`${r.happens === "left out" ? "take" : "leave out"} ${r.where}`}
                  sx={{ fontSize: 13, flex: "none" }}
                >
                  {r.happens === "left out" ? "take" : "leave out"}
                </Button>
              </Box>
            ))}
          </Box>
          {wrong.length > 0 && (
            <Typography sx={{ mt: 1, fontWeight: 500 }}>
              {wrong.length === 1 ? "One row is wrong" : `${wrong.length} rows are wrong`}: mend the
              file, or leave {wrong.length === 1 ? "it" : "them"} out.
            </Typography>
          )}
          <Box sx={{ display: "flex", gap: 1, mt: 1 }}>
            <Button
              variant="contained"
              disabled={wrong.length > 0 || coming === 0 || bring.isPending || look.isPending}
              onClick={() => file && bring.mutate({ f: file, left: leaveOut })}
            >
              {coming === 1 ? "add 1 paint" : `add ${coming} paints`}
            </Button>
            {wrong.length > 0 && (
              <Button
                color="inherit"
                onClick={() => {
                  const left = [...leaveOut, ...wrong.map((r) => r.row)];
                  setLeaveOut(left);
                  if (file) look.mutate({ f: file, left });
                }}
              >
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
      </Box>
    </Box>
  );
}
