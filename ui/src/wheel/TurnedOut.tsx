import Button from "@mui/material/Button";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link as To } from "react-router";
import { redrawnQuery, takingsQuery } from "../api/queries";
import { Notice } from "../app/Shell";

/** That tubes of a kept wheel turned out to be others than it was drawn with. */
export function TurnedOut({ id, version }: { id: number; version: number }) {
  const takings = useQuery(takingsQuery);
  const redrawn = useQuery({
    ...redrawnQuery(id),
    queryKey: [...redrawnQuery(id).queryKey, version],
    enabled: version > 0 && !!takings.data?.length,
  });
  const changes = redrawn.data?.changes ?? [];
  const place = `leave wheel ${id} of ${changes.map((c) => `${c.paint} ${c.is}`).join()}`;
  const [left, setLeft] = useState<string | null>(null);
  if (changes.length === 0 || left === place || sessionStorage.getItem(place)) return null;
  return (
    <Notice>
      {changes.map((c) => c.name).join(", ")} turned out to be{" "}
      {changes.length === 1 ? "another" : "others"} than this wheel was drawn with.
      <Button component={To} to={`/log/redraw/${id}`} variant="outlined" color="inherit">
        see it redrawn
      </Button>
      <Button
        color="inherit"
        onClick={() => {
          sessionStorage.setItem(place, "left");
          setLeft(place);
        }}
      >
        not now
      </Button>
    </Notice>
  );
}
