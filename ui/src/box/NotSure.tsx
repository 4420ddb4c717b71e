import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import type { KeptTube } from "../api/client";
import { nameQuery } from "../api/queries";
import { fill } from "../drawing/screen";
import { grey } from "../drawing/style";

/** The words on a tube stand for several pigments: which it may be, what would tell, and the way to say so. */
export function NotSure({
  tube,
  onSure,
  onSettle,
}: {
  tube: KeptTube;
  onSure: () => void;
  onSettle: (paints: string[]) => void;
}) {
  const words = tube.content.notSure ?? "";
  const named = useQuery({
    ...nameQuery(words, tube.content.grade === "student" ? "students" : "artists"),
    enabled: words !== "",
  });
  if (words === "") return null;
  const has = tube.definition.library || (tube.definition.origin?.pigments ?? []).join("+");
  const others = named.data?.found.filter((f) => f.paint !== has) ?? [];
  return (
    <Box
      component="section"
      aria-label="not sure which"
      sx={{ borderLeft: `4px solid ${grey.ink}`, pl: 1.5 }}
    >
      <Typography>
        <b>Not sure which.</b> “{words}” is taken for its likeliest pigment
        {others.length > 0 && `; it may be ${others.map((f) => f.name).join(", or ")}`}.{" "}
        {named.data?.found[0]?.tell && `To tell: ${named.data.found[0].tell}.`}
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
