import Box from "@mui/material/Box";
import ButtonBase from "@mui/material/ButtonBase";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { Link as To } from "react-router";
import type { Profile } from "../api/client";
import { sittingsQuery } from "../api/queries";
import { Shell } from "../app/Shell";
import { grey } from "../drawing/style";
import { Waiting } from "../parts/Waiting";

/** All sittings, the last one first. */
export function LogPlace({ painter }: { painter: Profile }) {
  const all = useQuery(sittingsQuery);
  if (!all.data) return <Waiting failing={all.failureCount > 0} />;
  return (
    <Shell painter={painter} title="Log">
      <Typography variant="h2">
        {all.data.length === 1 ? "One sitting" : `${all.data.length} sittings`}
      </Typography>
      {all.data.length === 0 && (
        <Typography sx={{ mt: 2 }}>
          Nothing was painted yet. <To to="/bench">Begin at the bench</To>: what is read of a
          sitting is laid beside what was computed here.
        </Typography>
      )}
      <Box component="ol" sx={{ m: 0, p: 0, listStyle: "none", maxWidth: 760, mt: 2 }}>
        {all.data.map((s) => (
          <Box component="li" key={s.id} sx={{ borderBottom: `1px solid ${grey.hairline}` }}>
            <ButtonBase
              component={To}
              to={`/log/${s.id}`}
              sx={{
                width: "100%",
                minHeight: 56,
                display: "flex",
                gap: 2,
                justifyContent: "flex-start",
                textAlign: "left",
                fontSize: 16,
                "&:hover": { textDecoration: "underline", textUnderlineOffset: "4px" },
              }}
            >
              <Box component="span" sx={{ fontWeight: 600, flex: 1, minWidth: 0 }}>
                {s.name}
              </Box>
              <Box component="span">
                {new Date(s.began).toLocaleString("en-GB", {
                  dateStyle: "long",
                  timeStyle: "short",
                })}
              </Box>
              <Box component="span" sx={{ width: 96, color: grey.third }}>
                {s.ended ? "ended" : "under way"}
              </Box>
            </ButtonBase>
          </Box>
        ))}
      </Box>
    </Shell>
  );
}
