import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import type { Conditions, KeptTube } from "../api/client";
import { besideQuery } from "../api/queries";
import { nameOf } from "../parts/naming";
import { figures, grey } from "../drawing/style";
import { SpectrumPlot } from "../drawing/SpectrumPlot";
import { LeanLine, Looks } from "./TubeCard";
import { PanelHead } from "./Pieces";

/** Two paints held side by side. */
export function BesidePanel({
  view,
  a,
  b,
  onEnd,
}: {
  view: Conditions;
  a: KeptTube;
  b: KeptTube;
  onEnd: () => void;
}) {
  const beside = useQuery(besideQuery(view, a.id, b.id));
  return (
    <Box
      component="section"
      aria-label="two paints side by side"
      sx={{ display: "flex", flexDirection: "column", gap: 1.5 }}
    >
      <PanelHead title="Side by side" leave="put back" onClose={onEnd} />
      <Box sx={{ display: "grid", gridTemplateColumns: "1fr 1fr", gap: 1 }}>
        {[a, b].map((t, i) => (
          <Box key={t.id} sx={{ minWidth: 0 }}>
            <Typography variant="subtitle2" sx={{ minHeight: 40, overflowWrap: "anywhere" }}>
              {nameOf(t)}
            </Typography>
            <Typography
              variant="caption"
              component="p"
              sx={{
                fontFamily: figures,
                borderTop: `2.2px ${i === 0 ? "solid" : "dashed"} ${grey.ink}`,
                pt: 0.5,
              }}
            >
              {t.paint.ci || "no code"}
            </Typography>
          </Box>
        ))}
      </Box>
      <Box
        sx={{ display: "grid", gridTemplateColumns: "minmax(0, 1fr) minmax(0, 1fr)", gap: "3px" }}
      >
        <Looks tube={a} height={92} brief />
        <Looks tube={b} height={92} brief />
      </Box>
      {beside.error && <Typography role="alert">{beside.error.message}</Typography>}
      {beside.data && (
        <>
          <Box
            component="ul"
            aria-label="what differs"
            sx={{ m: 0, pl: 2.25, fontSize: 14, lineHeight: "20px" }}
          >
            {beside.data.differences?.map((d) => (
              <Box component="li" key={d} sx={{ mb: 0.25 }}>
                {d}
              </Box>
            ))}
          </Box>
          <Typography variant="caption">
            CIEDE2000 between the masstones <Num v={beside.data.de} />, between the undertones{" "}
            <Num v={beside.data.undertoneDE} />; about 1 is just visible.
          </Typography>
          <Box>
            <Typography variant="caption" component="p">
              reflectance: masstones heavy, tints light; {nameOf(b)} dashed
            </Typography>
            <SpectrumPlot paints={[beside.data.a, beside.data.b]} height={120} />
          </Box>
          <LeanLine tube={{ paint: beside.data.a }} />
          <LeanLine tube={{ paint: beside.data.b }} />
        </>
      )}
    </Box>
  );
}

const Num = ({ v }: { v: number }) => (
  <Box component="span" sx={{ fontFamily: figures, color: grey.ink, fontWeight: 700 }}>
    {v.toFixed(1)}
  </Box>
);
