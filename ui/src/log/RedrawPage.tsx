import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Link as To, useNavigate, useParams } from "react-router";
import { answer, client, type Profile } from "../api/client";
import { redrawnQuery } from "../api/queries";
import { Missing } from "../app/Missing";
import { Shell } from "../app/Shell";
import { Waiting } from "../parts/Waiting";
import { PaintedSheet } from "../parts/PaintedSheet";
import { times } from "./words";

/** A kept wheel, and beside it what it would be with what its tubes turned out to be. */
export function RedrawPage({ painter }: { painter: Profile }) {
  const id = Number(useParams().id);
  const got = useQuery(redrawnQuery(id));
  const queries = useQueryClient();
  const navigate = useNavigate();
  const redraw = useMutation({
    mutationFn: (version: number) =>
      answer(
        client.POST("/api/wheels/{id}/redrawn", { params: { path: { id } }, body: { version } }),
      ),
    onSuccess: async () => {
      await queries.invalidateQueries();
      void navigate(`/wheel/${id}`);
    },
    onError: () => void queries.invalidateQueries(redrawnQuery(id)),
  });
  if (got.error && !got.data)
    return (
      <Missing
        painter={painter}
        what="this wheel"
        sentence={got.error.message}
        to="/log"
        back="to the log"
      />
    );
  if (!got.data) return <Waiting failing={got.failureCount > 0} />;
  const r = got.data;
  const changed = r.changes.length > 0;
  const large = r.changes.filter((c) => c.much);
  const figure = (label: string, places: typeof r.kept) => (
    <Box component="figure" sx={{ m: 0, minWidth: 0 }}>
      <PaintedSheet
        places={places}
        kind="wheel"
        width={r.width}
        height={r.width}
        size={360}
        label={label}
        marked={false}
      />
      <Typography component="figcaption" sx={{ mt: 1.5, fontWeight: 600 }}>
        {label}
      </Typography>
    </Box>
  );
  return (
    <Shell painter={painter} title={`Redraw ${r.name}`}>
      <Typography variant="h2">{r.name}</Typography>
      <Typography variant="caption" component="p">
        as computed in {r.medium}, dry
      </Typography>
      <Box
        sx={{
          display: "grid",
          gridTemplateColumns: { xs: "1fr 1fr", md: "1fr 1fr 340px" },
          gap: 4,
          mt: 2,
        }}
      >
        {figure("as it was kept", r.kept)}
        {changed &&
          figure(
            r.library ? "with the paints of today" : "with what the tubes turned out to be",
            r.now,
          )}
        <Box
          component="section"
          aria-label="what would change"
          sx={{ gridColumn: { xs: "1 / 3", md: changed ? "auto" : "2 / 4" } }}
        >
          {!changed && (
            <Typography>
              Its tubes are as they were when it was kept: there is nothing to redraw.
            </Typography>
          )}
          {r.library && (
            <Typography sx={{ mb: 1 }}>
              The library has its paints otherwise than in {r.library}.
            </Typography>
          )}
          {large.map((c) => (
            <Typography key={c.paint} sx={{ fontWeight: 600 }}>
              The {c.name}: {times(c.is / c.was)} as strong as in this wheel.
            </Typography>
          ))}
          {large.length > 0 && large.length < r.changes.length && (
            <Typography variant="body2">The others differ by less than a tenth.</Typography>
          )}
          {changed && large.length === 0 && (
            <Typography>Its tubes differ by less than a tenth.</Typography>
          )}
          {changed &&
            r.says.map((s) => (
              <Typography key={s} sx={{ mt: 1.5 }}>
                {s}
              </Typography>
            ))}
          <Box sx={{ display: "flex", gap: 2, mt: 3 }}>
            {changed && (
              <Button
                variant="contained"
                disabled={redraw.isPending}
                onClick={() => redraw.mutate(r.version)}
                sx={{ minHeight: 52 }}
              >
                redraw it
              </Button>
            )}
            <Button component={To} to={`/wheel/${id}`} color="inherit">
              {changed ? "leave it as it is" : "to the wheel"}
            </Button>
          </Box>
          {redraw.error && <Typography role="alert">{redraw.error.message}</Typography>}
          {changed && (
            <Typography variant="caption" component="p" sx={{ mt: 2 }}>
              Redrawing is a change like any other: it can be undone at the wheel, and what was
              painted stays as it was.
            </Typography>
          )}
          {changed && r.parts.length > 0 && (
            <Box
              component="ul"
              aria-label="mixed otherwise"
              sx={{ m: 0, mt: 1.5, p: 0, listStyle: "none" }}
            >
              {r.parts.map((p) => (
                <Typography component="li" variant="body2" key={p.slot} sx={{ mt: 0.5 }}>
                  <b>{p.slot}</b> {p.is} (was {p.was})
                </Typography>
              ))}
            </Box>
          )}
        </Box>
      </Box>
    </Shell>
  );
}
