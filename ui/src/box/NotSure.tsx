import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { Link as To } from "react-router";
import { constants, type KeptTube } from "../api/client";
import { looksQuery, nameQuery } from "../api/queries";
import { useColours } from "../drawing/screen";
import { grey } from "../drawing/style";

/** Of what looks alike only the nearest are named. */
const mostAlike = 4;

/** The words on a tube, or its look, stand for several pigments: which it may be, what would tell, and the way to say so. */
export function NotSure({
  tube,
  onSure,
  onSettle,
}: {
  tube: KeptTube;
  onSure: () => void;
  onSettle: (paints: string[]) => void;
}) {
  const { fill } = useColours();
  const words = tube.content.notSure ?? "";
  const byLook = words === constants.byLook;
  const named = useQuery({
    ...nameQuery(words, tube.content.grade === "student" ? "students" : "artists"),
    enabled: words !== "" && !byLook,
  });
  // What looks as the paint does that it is taken for.
  const { family, hiding, lean } = tube.paint;
  const alike = useQuery({
    ...looksQuery({ family, hiding, toward: lean?.toward ?? "" }),
    enabled: byLook,
  });
  if (words === "") return null;
  const has = tube.definition.library || (tube.definition.origin?.pigments ?? []).join("+");
  const found =
    (byLook
      ? alike.data?.found.map((f) => ({ ...f, paints: [f.paint] })).slice(0, mostAlike)
      : named.data?.found) ?? [];
  const others = found.filter((f) => f.paint !== has);
  return (
    <Box
      component="section"
      aria-label="not sure which"
      sx={{ borderLeft: `4px solid ${grey.ink}`, pl: 1.5 }}
    >
      <Typography>
        <b>Not sure which.</b>{" "}
        {byLook ? "It was told by its look" : `“${words}” is taken for its likeliest pigment`}
        {others.length > 0 && `; it may be ${others.map((f) => f.name).join(", or ")}`}.{" "}
        {byLook ? (
          <To to="/box/new">Two swatches of it would tell.</To>
        ) : (
          named.data?.found[0]?.tell && `To tell: ${named.data.found[0].tell}.`
        )}
      </Typography>
      <Box sx={{ display: "flex", flexWrap: "wrap", columnGap: 2 }}>
        <Button color="inherit" sx={{ px: 0 }} onClick={onSure}>
          it is the one it is taken for
        </Button>
        {others.map((f) => (
          <Button
            key={f.paint}
            color="inherit"
            sx={{ px: 0 }}
            startIcon={<Box sx={{ width: 18, height: 18, bgcolor: fill(f.shown) }} />}
            onClick={() => onSettle(f.paints)}
          >
            it is {f.code}
          </Button>
        ))}
      </Box>
    </Box>
  );
}
