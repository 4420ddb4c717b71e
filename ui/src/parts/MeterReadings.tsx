import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { answer, client, type Conditions } from "../api/client";
import { Swatch } from "../drawing/Swatch";
import { labWords, type Read } from "./colour";
import { LibrarySelect } from "./LibrarySelect";
import { figures, grey } from "../drawing/style";

type Reads = { mass?: Read; tint?: Read };
type Names = { mass: string; tint?: string };

/** The colours that were found, in figures. */
export function Found({ read, reads }: { read: Reads; reads: Names }) {
  const rows = [
    { what: reads.mass, r: read.mass },
    ...(reads.tint ? [{ what: reads.tint, r: read.tint }] : []),
  ];
  return (
    <Box sx={{ display: "flex", gap: 3, mt: 1, flexWrap: "wrap" }}>
      {rows.map(({ what, r }) => (
        <Box
          key={what}
          sx={{ display: "flex", gap: 1, alignItems: "center" }}
          aria-label={`${what} found`}
        >
          {r && <Swatch colour={r.colour} width={36} height={28} />}
          <Typography variant="body2">
            {what}{" "}
            <Box component="span" sx={{ fontFamily: figures }}>
              {r ? labWords(r.colour.lab) : "not yet"}
            </Box>
          </Typography>
        </Box>
      ))}
    </Box>
  );
}

/** The stand-in meter: what lies under it is chosen, then it measures with noise and drift like a real one. */
export function MeterReadings({
  surface,
  reads,
  parts = null,
  read,
  onRead,
}: {
  surface: Pick<Conditions, "medium" | "judged">;
  reads: Names;
  parts?: number | null;
  read: Reads;
  onRead: (r: Reads) => void;
}) {
  const [under, setUnder] = useState("");
  const measure = useMutation({
    mutationFn: async (what: "mass" | "tint") => {
      const swatch = what === "mass" ? `${under}=1` : `${under}=1 PW6=${parts ?? 9}`;
      return {
        what,
        got: await answer(client.POST("/api/meter/readings", { body: { swatch, ...surface } })),
      };
    },
    onSuccess: ({ what, got }) => onRead({ ...read, [what]: got }),
  });
  const last = measure.data?.got;
  return (
    <Box sx={{ mt: 1, display: "flex", flexDirection: "column", gap: 1 }}>
      <Typography variant="body2" sx={{ color: grey.second }}>
        A stand-in for a hand-held meter ships with Gyrophane. It has no lens, so say what lies
        under it.
      </Typography>
      <LibrarySelect
        label="under the meter lies"
        value={under}
        onChange={(p) => {
          setUnder(p.id);
          onRead({});
        }}
      />
      <Box sx={{ display: "flex", gap: 1 }}>
        <Button
          variant="outlined"
          disabled={!under || measure.isPending}
          onClick={() => measure.mutate("mass")}
        >
          read the {reads.mass}
        </Button>
        {reads.tint && (
          <Button
            variant="outlined"
            disabled={!under || parts === null || measure.isPending}
            onClick={() => measure.mutate("tint")}
          >
            read the {reads.tint}
          </Button>
        )}
      </Box>
      {measure.error && (
        <Typography role="alert" sx={{ fontWeight: 500 }}>
          {measure.error.message}
        </Typography>
      )}
      <Found read={read} reads={reads} />
      {last && (
        <Typography variant="caption">
          {last.device}: mean of {last.repeats} measurements, which differ by{" "}
          {(100 * last.spread).toFixed(2)} % of full reflectance at the most.
        </Typography>
      )}
    </Box>
  );
}
