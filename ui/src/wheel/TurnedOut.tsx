import Button from "@mui/material/Button";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link as To } from "react-router";
import { redrawnQuery } from "../api/queries";
import { Notice } from "../app/Notice";

/** That paints of a kept wheel are others than it was drawn with: tubes that turned out so, or the library. */
export function TurnedOut({ id, version }: { id: number; version: number }) {
  const redrawn = useQuery({
    ...redrawnQuery(id),
    queryKey: [...redrawnQuery(id).queryKey, version],
    enabled: version > 0,
  });
  const changes = redrawn.data?.changes ?? [];
  const place = `leave wheel ${id} of ${changes.map((c) => `${c.paint} ${c.is}`).join()}`;
  const [left, setLeft] = useState<string | null>(null);
  // Of an update only what changes a recipe is spoken of.
  const idle = redrawn.data?.library && redrawn.data.parts.length === 0;
  if (changes.length === 0 || idle || left === place || sessionStorage.getItem(place)) return null;
  return (
    <Notice>
      {redrawn.data?.library ? (
        <>
          The library has paints of this wheel otherwise than in {redrawn.data.library}:{" "}
          {redrawn.data.parts.length} {redrawn.data.parts.length === 1 ? "recipe" : "recipes"} would
          change. It stays as it was kept until you redraw it.
        </>
      ) : (
        <>
          {changes.map((c) => c.name).join(", ")} turned out to be{" "}
          {changes.length === 1 ? "another" : "others"} than this wheel was drawn with.
        </>
      )}
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
