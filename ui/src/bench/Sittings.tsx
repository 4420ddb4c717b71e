import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import Typography from "@mui/material/Typography";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Link as To, useNavigate } from "react-router";
import { answer, client, type BenchSheet, type Measure } from "../api/client";
import { sittingQuery, sittingsQuery, underWayQuery } from "../api/queries";
import { Choice } from "../parts/Choice";
import { howFar } from "../parts/underWay";

/** Begins to paint the sheet, or goes on with a sitting that was begun. */
export function Sittings({
  id,
  sheet,
  measure,
  one,
}: {
  id: number;
  sheet: BenchSheet;
  measure: Measure;
  one?: number;
}) {
  const queries = useQueryClient();
  const navigate = useNavigate();
  const all = useQuery(sittingsQuery);
  const begin = useMutation({
    mutationFn: () =>
      answer(
        client.POST("/api/wheels/{id}/sittings", {
          params: { path: { id } },
          body: { sheet, measure, one },
        }),
      ),
    onSuccess: (begun) => {
      queries.setQueryData(sittingQuery(begun.id).queryKey, begun);
      void queries.invalidateQueries(sittingsQuery);
      void queries.invalidateQueries(underWayQuery);
      void navigate(`/bench/sitting/${begun.id}`);
    },
  });
  const { data: underWay } = useQuery(underWayQuery);
  const going = underWay?.find((s) => s.wheel === id);
  const own = (all.data ?? []).filter((s) => s.wheel === id);
  return (
    <>
      {own.length > 0 && (
        <Choice
          label="sittings"
          shown={own.length === 1 ? "one sitting" : `${own.length} sittings`}
        >
          {() =>
            own.map((s) => (
              <MenuItem
                key={s.id}
                component={To}
                to={`/bench/sitting/${s.id}`}
                sx={{ minHeight: 56 }}
              >
                {new Date(s.began).toLocaleString("en-GB", {
                  dateStyle: "medium",
                  timeStyle: "short",
                })}
                {s.ended ? "" : ", under way"}
              </MenuItem>
            ))
          }
        </Choice>
      )}
      {going && (
        <Button variant="contained" component={To} to={`/bench/sitting/${going.id}`} sx={{ ml: 2 }}>
          go on: {howFar(going)}
        </Button>
      )}
      <Button
        variant={going ? "outlined" : "contained"}
        color={going ? "inherit" : "primary"}
        disabled={begin.isPending}
        onClick={() => begin.mutate()}
        sx={{ ml: 2, mr: 1 }}
      >
        {going ? "begin another" : "begin to paint"}
      </Button>
      {begin.error && <Typography role="alert">{begin.error.message}</Typography>}
    </>
  );
}
