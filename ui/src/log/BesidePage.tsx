import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { Link as To, useParams } from "react-router";
import type { Profile, Schemas } from "../api/client";
import { sittingsBesideQuery } from "../api/queries";
import { Missing } from "../app/Missing";
import { Shell } from "../app/Shell";
import { mediumWords } from "../parts/choices";
import { Waiting } from "../parts/Waiting";
import { PaintedSheet } from "../parts/PaintedSheet";
import { day, readWords } from "./words";

/** Two painted sheets beside each other, and what differs in sentences. */
export function BesidePage({ painter }: { painter: Profile }) {
  const { id, other } = useParams();
  const got = useQuery(sittingsBesideQuery(Number(id), Number(other)));
  if (got.error && !got.data)
    return (
      <Missing
        painter={painter}
        what="one of these two sittings"
        sentence={got.error.message}
        to="/log"
        back="to the log"
      />
    );
  if (!got.data) return <Waiting failing={got.failureCount > 0} />;
  const { one, other: second, says } = got.data;
  return (
    <Shell painter={painter} title="Two sittings beside each other">
      <Box sx={{ display: "flex", alignItems: "baseline" }}>
        <Typography variant="h2" sx={{ flex: 1 }}>
          Beside each other
        </Typography>
        <Button component={To} to={`/log/${other}/beside/${id}`} color="inherit">
          the other way round
        </Button>
        <Button component={To} to="/log" color="inherit">
          all sittings
        </Button>
      </Box>
      <Box
        sx={{
          display: "grid",
          gridTemplateColumns: { xs: "1fr 1fr", md: "1fr 1fr 340px" },
          gap: 4,
          mt: 2,
        }}
      >
        <Painted sitting={one} />
        <Painted sitting={second} />
        <Box
          component="section"
          aria-label="what differs"
          sx={{ gridColumn: { xs: "1 / 3", md: "auto" } }}
        >
          <Typography sx={{ fontSize: 20, fontWeight: 600 }}>
            The first, beside the second
          </Typography>
          <Box component="ul" sx={{ m: 0, p: 0, listStyle: "none" }}>
            {says.map((s) => (
              <Typography component="li" key={s} sx={{ mt: 1.5 }}>
                {s}
              </Typography>
            ))}
          </Box>
        </Box>
      </Box>
    </Shell>
  );
}

function Painted({ sitting: s }: { sitting: Schemas["OnShelf"] }) {
  return (
    <Box component="figure" sx={{ m: 0, minWidth: 0 }}>
      <PaintedSheet
        places={s.places}
        kind={s.kind}
        width={s.width}
        height={s.height}
        size={360}
        label={`${s.name}: ${readWords(s)}`}
      />
      <Box component="figcaption" sx={{ mt: 1.5 }}>
        <Typography sx={{ fontWeight: 600, overflowWrap: "anywhere" }}>
          <To to={`/log/${s.id}`} style={{ color: "inherit" }}>
            {s.name}
          </To>
        </Typography>
        <Typography variant="body2">
          {day(s.began)}, {mediumWords[s.medium]}; {s.paints.join(", ")}
        </Typography>
        <Typography variant="caption">{readWords(s)}</Typography>
      </Box>
    </Box>
  );
}
