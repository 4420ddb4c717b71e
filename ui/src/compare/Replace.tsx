import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import type { Conditions } from "../api/client";
import { replaceQuery, wheelsQuery } from "../api/queries";
import { OneOf } from "../parts/Choice";
import { figures, grey } from "../drawing/style";
import { listIn, relisted, useAddress } from "../parts/useAddress";
import { Both } from "../drawing/Swatch";

/** What changes when one tube of a kept system is swapped for the best other one. */
export function Replace({
  from,
  view,
  paints,
  called,
}: {
  from: "box" | "library";
  view: Conditions;
  paints: { value: string; name: string }[];
  called: (p: { id: string; name: string }) => string;
}) {
  const { search, show } = useAddress();
  const wheels = useQuery(wheelsQuery);
  const kept = (wheels.data ?? []).filter((w) => !w.archived);
  const id = Number(search.get("replace")) || kept[0]?.id || 0;
  const tried = listIn(search, "tried") ?? [];
  const got = useQuery(replaceQuery(id, from, tried, view));
  // The empty choice gives a place back to what replaces it best.
  const attempt = (out: string, put: string) =>
    show(
      relisted("tried", (now) => [
        ...now.filter((t) => !t.startsWith(`${out}~`)),
        ...(put ? [`${out}~${put}`] : []),
      ]),
    );
  if (kept.length === 0) return null;
  return (
    <Box
      component="section"
      aria-label="replace a tube"
      sx={{ mt: 3, borderTop: `2px solid ${grey.ink}`, pt: 1 }}
    >
      <Box sx={{ display: "flex", flexWrap: "wrap", alignItems: "baseline", columnGap: 2 }}>
        <Typography variant="h3">Replace a tube</Typography>
        <OneOf
          label="of the system"
          shown={`of ${kept.find((w) => w.id === id)?.name ?? "no system"}`}
          of={kept.map((w) => ({ value: String(w.id), name: w.name }))}
          value={String(id)}
          onChoose={(v) => show({ replace: v, tried: undefined })}
        />
        <Typography variant="caption">
          by what is {from === "box" ? "in the box" : "in the library"}; for each tube its best
          other one, or another that is tried
        </Typography>
      </Box>
      {got.error && (
        <Typography role="alert">
          {got.error.message}{" "}
          <Button size="small" color="inherit" onClick={() => show({ tried: undefined })}>
            try none
          </Button>
        </Typography>
      )}
      {got.data?.length === 0 && (
        <Typography sx={{ color: grey.second }}>
          Nothing else could stand in these places.
        </Typography>
      )}
      {(got.error ? [] : (got.data ?? [])).map((s) => (
        <Box
          key={s.out.id}
          aria-label={`${called(s.in)} for ${called(s.out)}`}
          sx={{
            display: "grid",
            gridTemplateColumns: {
              xs: "minmax(0, 1fr)",
              md: "minmax(0, 470px) 80px minmax(0, 1fr)",
            },
            gap: 1.5,
            alignItems: "center",
            borderBottom: `1px solid ${grey.hairline}`,
            py: 0.5,
            opacity: got.isPlaceholderData ? 0.5 : 1,
          }}
        >
          <Box sx={{ display: "flex", alignItems: "center", gap: 0.75 }}>
            <Both paint={s.in} width={36} height={22} />
            <OneOf
              label={`instead of ${called(s.out)}`}
              shown={called(s.in)}
              of={[
                { value: "", name: "the best for it" },
                ...paints.filter((p) => p.value !== s.out.id),
              ]}
              value={s.in.id}
              onChoose={(put) => attempt(s.out.id, put)}
            />
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
