import Box from "@mui/material/Box";
import { useQuery } from "@tanstack/react-query";
import { Link, useLocation } from "react-router";
import { underWayQuery } from "../api/queries";
import { grey } from "../drawing/style";
import { howFar } from "../parts/underWay";

/** The sitting that is under way, but for where it is looked at. */
export function useUnderWay() {
  const { pathname } = useLocation();
  const { data } = useQuery(underWayQuery);
  const [last] = data ?? [];
  return last && !pathname.startsWith(`/bench/sitting/${last.id}`) ? last : undefined;
}

/** How far the sitting that is under way has come, and the way back to it. */
export function UnderWay() {
  const last = useUnderWay();
  if (!last) return null;
  return (
    <Box
      component={Link}
      to={`/bench/sitting/${last.id}`}
      title={last.name}
      sx={{
        color: grey.ink,
        textDecoration: "none",
        textAlign: "right",
        fontSize: 12,
        lineHeight: "16px",
        py: 0.75,
      }}
    >
      {howFar(last)}:{" "}
      <Box component="b" sx={{ display: "block", fontSize: 14 }}>
        go on
      </Box>
    </Box>
  );
}
