import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import type { Conditions } from "../api/client";
import { replaceQuery, wheelsQuery } from "../api/queries";
import { OneOf } from "../app/Choice";
import { figures, grey } from "../app/theme";
import { useAddress } from "../app/useAddress";
import { Both } from "../drawing/Swatch";

/** What changes when one tube of a kept system is swapped for the best other one. */
export function Replace({ from, view, called }: { from: "box" | "library"; view: Conditions; called: (p: { id: string; name: string }) => string }) {
  const { search, show } = useAddress();
  const wheels = useQuery(wheelsQuery);
  const kept = (wheels.data ?? []).filter((w) => !w.archived);
  const id = Number(search.get("replace")) || kept[0]?.id || 0;
  const got = useQuery(replaceQuery(id, from, view));
  return (
    <Box component="section" aria-label="replace a tube" sx={{ mt: 3, borderTop: `2px solid ${grey.ink}`, pt: 1 }}>
      <Box sx={{ display: "flex", flexWrap: "wrap", alignItems: "baseline", columnGap: 2 }}>
        <Typography variant="h3">Replace a tube</Typography>
        <OneOf label="of the system" shown={`of ${kept.find((w) => w.id === id)?.name ?? "no system"}`} of={kept.map((w) => ({ value: String(w.id), name: w.name }))} value={String(id)} onChoose={(v) => show({ replace: v })} />
        <Typography variant="caption">by what is {from === "box" ? "in the box" : "in the library"}; for each tube its best other one</Typography>
      </Box>
      {got.error && <Typography role="alert">{got.error.message}</Typography>}
      {got.data?.length === 0 && <Typography sx={{ color: grey.second }}>Nothing else could stand in these places.</Typography>}
      {(got.error ? [] : (got.data ?? [])).map((s) => (
        <Box key={s.out.id} aria-label={`${called(s.in)} for ${called(s.out)}`} sx={{ display: "grid", gridTemplateColumns: { xs: "minmax(0, 1fr)", md: "minmax(0, 400px) 90px minmax(0, 1fr)" }, gap: 1.5, alignItems: "center", borderBottom: `1px solid ${grey.hairline}`, py: 0.5, opacity: got.isPlaceholderData ? 0.5 : 1 }}>
          <Box sx={{ display: "flex", alignItems: "center", gap: 0.75 }}>
            <Both paint={s.in} width={36} height={22} />
            <Typography sx={{ fontWeight: 500 }}>{called(s.in)}</Typography>
            <Typography sx={{ color: grey.second }}>for</Typography>
            <Both paint={s.out} width={36} height={22} />
            <Typography>{called(s.out)}</Typography>
          </Box>
          <Typography sx={{ fontFamily: figures, fontSize: 13 }}>
            {s.gain >= 0 ? "+" : "−"}
            {Math.abs(100 * s.gain).toFixed(0)} %
          </Typography>
          <Typography variant="body2" sx={{ color: grey.second }}>
            {s.says}
          </Typography>
        </Box>
      ))}
    </Box>
  );
}
