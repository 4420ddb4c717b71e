import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { useEffect, useMemo } from "react";
import type { Schemas } from "../api/client";
import { shownPhotoQuery } from "../api/shown";
import { mediumWords } from "../parts/choices";
import { Jumps } from "./Jumps";
import { Places } from "./Places";
import { day } from "./words";

/** What came of a sitting as others see it. */
export function ShownSitting({ of, token }: { of: Schemas["ExhibitedSitting"]; token: string }) {
  const read = of.places.filter((p) => p.dry ?? p.wet).length;
  return (
    <Box component="section" aria-label="what was painted" sx={{ maxWidth: 900 }}>
      <Typography variant="caption" component="p">
        {day(of.began)}, {mediumWords[of.medium]}, {of.title}; {read} of {of.places.length} read
        {!of.ended && "; under way"}
      </Typography>
      <Places of={of.places} />
      {of.dried.length > 0 && (
        <Typography sx={{ mt: 1.5 }}>
          <b>Wet to dry.</b> {of.dried.join(" ")}
        </Typography>
      )}
      <Jumps of={of.jumps} />
      {of.notes.map((text, n) => (
        <Typography key={n} sx={{ mt: 1.5 }}>
          {text}
        </Typography>
      ))}
      {of.nextTime && (
        <Typography sx={{ mt: 1.5 }}>
          <b>Next time.</b> {of.nextTime}
        </Typography>
      )}
      <Box sx={{ display: "flex", flexWrap: "wrap", gap: 2, mt: 2 }}>
        {of.photos.map((p) => (
          <Photo key={p.id} of={p} token={token} />
        ))}
      </Box>
    </Box>
  );
}

function Photo({ of, token }: { of: Schemas["SittingPhoto"]; token: string }) {
  const got = useQuery(shownPhotoQuery(token, of.id));
  const address = useMemo(() => got.data && URL.createObjectURL(got.data), [got.data]);
  useEffect(() => () => void (address && URL.revokeObjectURL(address)), [address]);
  return (
    <Box component="figure" sx={{ m: 0 }}>
      {address && (
        <img
          src={address}
          alt={`the sheet on ${day(of.at)}`}
          width={320}
          height={(320 * of.height) / of.width}
          style={{ display: "block", maxWidth: "100%" }}
        />
      )}
      <Typography component="figcaption" variant="caption">
        {day(of.at)}
        {of.standin && ", by the stand-in camera"}
      </Typography>
    </Box>
  );
}
