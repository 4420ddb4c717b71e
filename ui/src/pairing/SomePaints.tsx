import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useQuery } from "@tanstack/react-query";
import { constants, type KeptTube, type Settings, type Shown } from "../api/client";
import { paintsQuery } from "../api/queries";
import { OneOf } from "../parts/Choice";
import { nameOf } from "../parts/naming";
import { grey } from "../drawing/style";
import { Both } from "../drawing/Swatch";

const most = constants.mostPaired;

/** Any paints of the box or the library, to be paired with each other. */
export function SomePaints({
  tubes,
  settings,
  chosen,
  onPress,
}: {
  tubes: KeptTube[];
  settings: Settings;
  chosen: string[];
  onPress: (paint: string) => void;
}) {
  const library = useQuery(paintsQuery(settings));
  const all = library.data ?? [];
  const own = tubes.map((t) => ({
    id: t.paint.id,
    name: nameOf(t),
    masstone: t.paint.masstone,
    undertone: t.paint.undertone,
  }));
  const taken = all
    .filter((p) => chosen.includes(p.id))
    .map((p) => ({
      id: p.id,
      name: p.shortName,
      masstone: p.masstone,
      undertone: p.undertone,
    }));
  const left = all.filter((p) => !chosen.includes(p.id));
  return (
    <Box
      role="group"
      aria-label="some paints"
      sx={{ display: "flex", flexWrap: "wrap", alignItems: "center", gap: 0.75, mt: 1 }}
    >
      {[...own, ...taken].map((p) => (
        <Chip
          key={p.id}
          paint={p}
          on={chosen.includes(p.id)}
          full={chosen.length >= most}
          onPress={() => onPress(p.id)}
        />
      ))}
      {left.length > 0 && chosen.length < most && (
        <OneOf
          label="a paint of the library"
          shown="one of the library"
          of={left.map((p) => ({ value: p.id, name: `${p.id} ${p.shortName}` }))}
          value=""
          onChoose={onPress}
        />
      )}
    </Box>
  );
}

function Chip({
  paint,
  on,
  full,
  onPress,
}: {
  paint: { name: string; masstone: Shown; undertone: Shown };
  on: boolean;
  full: boolean;
  onPress: () => void;
}) {
  return (
    <Button
      color="inherit"
      role="checkbox"
      aria-checked={on}
      disabled={full && !on}
      onClick={onPress}
      sx={{
        minHeight: 40,
        p: "2px 8px 2px 2px",
        gap: 0.75,
        fontSize: 13,
        lineHeight: "16px",
        fontWeight: on ? 600 : 400,
        border: `${on ? 2 : 1}px solid ${on ? grey.ink : grey.hairline}`,
      }}
    >
      <Both paint={paint} width={22} height={32} />
      {paint.name}
    </Button>
  );
}
