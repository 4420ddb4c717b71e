import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import type { Ingredient, Schemas, Settings } from "../api/client";
import { quietenQuery } from "../api/queries";
import { OneOf } from "../parts/Choice";
import { figures, grey } from "../drawing/style";
import { useAddress } from "../parts/useAddress";
import { Drop } from "../drawing/Marks";
import { Swatch } from "../drawing/Swatch";
import type { OnPalette } from "./PileView";
import { asked, usePiles } from "./usePiles";

type Way = Schemas["QuietWay"];

const wayWords: Record<Way["way"], { name: string; what: string }> = {
  complement: { name: "by its complement", what: "straight through grey" },
  neighbour: { name: "by its neighbour", what: "cooled toward blue" },
  earth: { name: "by an earth", what: "of the same lightness" },
};

const pile = "the pile";

/** A colour cooled or dulled in three ways, side by side, by the same shares of its chroma. */
export function QuietView({
  id,
  settings,
  paints,
  called,
}: {
  id: number;
  settings: Settings;
  paints: OnPalette[];
  /** What a paint is called, also one that is no longer at hand. */
  called: (ref: string) => string;
}) {
  const { search, show } = useAddress();
  const piles = usePiles(id);
  const given = search.get("quiet");
  const of = given ?? (piles.now.length > 0 ? pile : (paints[0]?.id ?? ""));
  const parts = of === pile ? asked(piles.now) : of ? [`${of}=1`] : [];
  const chosen = {
    complement: search.get("complement") ?? undefined,
    neighbour: search.get("neighbour") ?? undefined,
    earth: search.get("earth") ?? undefined,
  };
  const got = useQuery(
    quietenQuery(id, { parts, with: paints.map((p) => p.id), ...chosen }, settings),
  );
  const sources = [
    ...(piles.now.length > 0 ? [{ value: pile, name: "the pile on the palette" }] : []),
    ...paints.map((p) => ({ value: p.id, name: p.name })),
  ];
  const q = got.error ? undefined : got.data;
  return (
    <Box component="section" aria-label="quieten">
      <Box
        sx={{
          display: "flex",
          flexWrap: "wrap",
          columnGap: 2,
          alignItems: "baseline",
          "& > button": { fontSize: 22, py: 0.5 },
        }}
      >
        <OneOf
          label="quieten"
          shown={of === pile ? "the pile on the palette" : called(of)}
          of={sources}
          value={of}
          onChoose={(v) =>
            show({ quiet: v, complement: undefined, neighbour: undefined, earth: undefined })
          }
        />
        <Typography sx={{ color: grey.second }}>
          quietened, brushed out: a column has lost about the same share of its chroma, or where
          none is lost its hue has turned. In words: as painted.
        </Typography>
      </Box>
      {got.error && (
        <Typography role="alert" sx={{ mt: 2 }}>
          {got.error.message}
        </Typography>
      )}
      {q && (
        <Box sx={{ mt: 1, display: "flex", flexDirection: "column", gap: 1.5 }}>
          {q.ways.map((w) => (
            <Row
              key={w.way}
              way={w}
              of={q.of}
              paints={paints}
              called={called}
              onChoose={(p) => show({ [w.way]: p })}
            />
          ))}
        </Box>
      )}
    </Box>
  );
}

function Row({
  way,
  of,
  paints,
  called,
  onChoose,
}: {
  way: Way;
  of: Schemas["Mixture"];
  paints: OnPalette[];
  called: (ref: string) => string;
  onChoose: (paint: string) => void;
}) {
  const words = wayWords[way.way];
  const base = way.with?.of?.[0]?.paint ?? way.with?.paint ?? "";
  const raised = way.with?.of?.map((p) => `${p.parts} ${p.code}`).join(" : ");
  const name = way.with
    ? paints.some((p) => p.id === base)
      ? called(base)
      : way.with.name
    : "none";
  return (
    <Box
      aria-label={words.name}
      sx={{
        display: "grid",
        gridTemplateColumns: { xs: "minmax(0, 1fr)", md: "200px minmax(0, 1fr)" },
        gap: 2,
        borderTop: `2px solid ${grey.ink}`,
        pt: 0.5,
      }}
    >
      <Box>
        <Typography variant="subtitle2">{words.name}</Typography>
        <Typography variant="caption" component="p">
          {words.what}
        </Typography>
        <OneOf
          label={`${words.name}: which paint`}
          shown={name}
          of={paints.map((p) => ({ value: p.id, name: p.name }))}
          value={base}
          onChoose={onChoose}
        />
        {way.with && (
          <Box sx={{ display: "flex", alignItems: "center", gap: 1 }}>
            <Swatch colour={way.with} width={40} height={28} />
            <Typography variant="caption">
              {raised
                ? `raised with white first, ${raised}`
                : way.library
                  ? "from the library: none at hand"
                  : ""}
            </Typography>
          </Box>
        )}
      </Box>
      <Box
        sx={{ display: "grid", gridTemplateColumns: "repeat(5, minmax(0, 1fr))", columnGap: "3px" }}
      >
        <Rung colour={of.asPainted} verdict={of.verdict} head="as it is" lines={[of.words]} />
        {way.rungs.map((r, i) => (
          <Rung
            key={i}
            colour={r.asPainted}
            verdict={r.verdict}
            head={did(r, way.cools)}
            parts={r.parts}
            lines={[r.beside, r.words]}
          />
        ))}
        {way.rungs.length < 4 && way.with && (
          <Typography variant="caption" sx={{ alignSelf: "center", pl: 1 }}>
            {way.rungs.length === 0 ? "This does not quieten it." : "No further this way."}
          </Typography>
        )}
      </Box>
    </Box>
  );
}

function Rung({
  colour,
  verdict,
  head,
  parts = [],
  lines,
}: {
  colour: Schemas["Colour"];
  verdict: Schemas["Mixture"]["verdict"];
  head: string;
  parts?: Ingredient[];
  lines: string[];
}) {
  return (
    <Box sx={{ minWidth: 0 }}>
      <Swatch colour={colour} height={76} />
      <Box sx={{ display: "flex", alignItems: "center", gap: 0.75, pt: 0.5 }}>
        <Drop verdict={verdict} height={13} />
        <Typography variant="body2" sx={{ fontWeight: 500 }}>
          {head}
        </Typography>
      </Box>
      {parts.length > 0 && (
        <Typography sx={{ fontFamily: figures, fontSize: 12 }}>
          {parts.map((p) => `${p.parts} ${short(p)}`).join(" : ")}
        </Typography>
      )}
      {lines.map(
        (l) =>
          l && (
            <Typography key={l} variant="caption" component="p">
              {l}
            </Typography>
          ),
      )}
    </Box>
  );
}

/** What a rung did, brushed out: the chroma it took, or how far it turned the hue. */
const did = (r: Way["rungs"][number], cools: boolean) =>
  cools ? `turned ${Math.abs(Math.round(r.turned))}°` : `−${Math.round(100 * r.lost)} % chroma`;

const short = (p: Ingredient) =>
  `${p.of?.length ? (p.paint === pile ? "pile" : `${p.of[0]!.code}+white`) : p.code}${p.letDown ? ` (let down 1:${p.letDown.parts})` : ""}`;
