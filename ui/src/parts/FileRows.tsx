import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useColours } from "../drawing/screen";
import type { Shown } from "../drawing/shapes";
import { figures, grey } from "../drawing/style";

/** A row of a file, as it is shown before anything of the file is kept. */
export type FileRow = {
  row: number;
  where: string;
  name: string;
  detail: string;
  /** What it looks like, edge to edge with what it is held against; empty where it is refused. */
  chips: Shown[];
  /** What becomes of it: refused rows are mended in the file or left out. */
  happens: string;
  remark?: string;
};

/** The rows of a file, each of which can be left out. */
export function FileRows({ rows, onToggle }: { rows: FileRow[]; onToggle: (row: number) => void }) {
  return (
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
      {rows.map((r) => {
        const left = r.happens === "left out";
        return (
          <Box
            component="li"
            key={r.row}
            sx={{
              display: "flex",
              gap: 1,
              alignItems: "flex-start",
              py: 0.75,
              borderBottom: `1px solid ${grey.hairline}`,
              color: left ? grey.third : grey.ink,
            }}
          >
            <Chips of={r.chips} />
            <Box sx={{ flex: 1, minWidth: 0 }}>
              <Typography variant="body2" sx={{ fontWeight: 500, overflowWrap: "anywhere" }}>
                {r.name || "?"}{" "}
                <Box
                  component="span"
                  sx={{ fontFamily: figures, fontWeight: 400, fontSize: 12, color: grey.third }}
                >
                  {r.detail} · {r.where}
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
              onClick={() => onToggle(r.row)}
              aria-label={`${left ? "take" : "leave out"} ${r.where}`}
              sx={{ fontSize: 13, flex: "none" }}
            >
              {left ? "take" : "leave out"}
            </Button>
          </Box>
        );
      })}
    </Box>
  );
}

function Chips({ of }: { of: Shown[] }) {
  const { fill } = useColours();
  const width = 22 * Math.max(1, of.length);
  return (
    <svg width={width} height={22} aria-hidden style={{ flex: "none" }}>
      {of.map((c, i) => (
        <rect key={i} x={22 * i} width={22} height={22} fill={fill(c)} />
      ))}
      {of.length === 0 && (
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
  );
}

/** How many rows are wrong, and what to do about it. */
export function WrongRows({ count }: { count: number }) {
  if (count === 0) return null;
  return (
    <Typography sx={{ mt: 1, fontWeight: 500 }}>
      {count === 1 ? "One row is wrong" : `${count} rows are wrong`}: mend the file, or leave{" "}
      {count === 1 ? "it" : "them"} out.
    </Typography>
  );
}
