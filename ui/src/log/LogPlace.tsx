import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import ButtonBase from "@mui/material/ButtonBase";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { useDeferredValue, useState } from "react";
import { Link as To } from "react-router";
import type { Profile, Schemas } from "../api/client";
import { shelfQuery, takingsQuery, type ShelfPart } from "../api/queries";
import { Shell } from "../app/Shell";
import { grey } from "../drawing/style";
import { OneOf } from "../parts/Choice";
import { kindWords, mediumWords, sheetWords } from "../parts/choices";
import { useAddress } from "../parts/useAddress";
import { Waiting } from "../parts/Waiting";
import { Eye } from "./Eye";
import { PaintedSheet } from "../parts/PaintedSheet";
import { Takings } from "./Takings";
import { day, readWords } from "./words";

const onlyWords = {
  "": "all sittings",
  read: "read",
  unread: "not read",
  "under way": "under way",
} as const;
const systemWords: Record<string, string> = Object.fromEntries(
  Object.entries(kindWords).map(([kind, { name }]) => [kind, name]),
);
const any = (words: Record<string, string>, all: string) => [
  { value: "", name: all },
  ...Object.entries(words).map(([value, name]) => ({ value, name })),
];

/** The shelf of what was painted, the last first, and what was learned from it. */
export function LogPlace({ painter }: { painter: Profile }) {
  const { search, show } = useAddress();
  const said = (name: string) => search.get(name) ?? "";
  const part = useDeferredValue(
    Object.fromEntries(
      ["words", "medium", "system", "only"].flatMap((n) => (said(n) ? [[n, said(n)]] : [])),
    ) as ShelfPart,
  );
  const shelf = useQuery(shelfQuery(part));
  const takings = useQuery(takingsQuery);
  const [chosen, setChosen] = useState<number[]>([]);
  const got = shelf.data;
  if (!got) return <Waiting failing={shelf.failureCount > 0} />;
  const few = got.sittings.length <= 4; // drawn as large as there is room
  const toggle = (id: number) =>
    setChosen((was) => (was.includes(id) ? was.filter((c) => c !== id) : [...was, id].slice(-2)));
  return (
    <Shell painter={painter} title="Log">
      <Box
        sx={{
          display: "grid",
          gridTemplateColumns: { xs: "minmax(0, 1fr)", md: "minmax(0, 1fr) 360px" },
          gap: 4,
        }}
      >
        <Box component="section" aria-label="the shelf" sx={{ minWidth: 0 }}>
          <Box sx={{ display: "flex", flexWrap: "wrap", alignItems: "center", columnGap: 3 }}>
            <Typography variant="h2" sx={{ flex: 1, whiteSpace: "nowrap" }}>
              {got.all === 1 ? "One sitting" : `${got.all} sittings`}
            </Typography>
            {got.all > 0 && (
              <>
                <TextField
                  size="small"
                  label="look for"
                  value={said("words")}
                  onChange={(e) => show({ words: e.target.value || undefined })}
                  slotProps={{ htmlInput: { maxLength: 100 } }}
                  helperText=""
                  sx={{ width: 190 }}
                />
                <OneOf
                  label="medium"
                  shown={mediumWords[said("medium") as keyof typeof mediumWords] ?? "any medium"}
                  of={any(mediumWords, "any medium")}
                  value={said("medium")}
                  onChoose={(medium) => show({ medium: medium || undefined })}
                />
                <OneOf
                  label="system"
                  shown={systemWords[said("system")] ?? "any system"}
                  of={any(systemWords, "any system")}
                  value={said("system")}
                  onChoose={(system) => show({ system: system || undefined })}
                />
                <OneOf
                  label="sittings"
                  shown={onlyWords[said("only") as keyof typeof onlyWords] ?? "all sittings"}
                  of={any(onlyWords, "all sittings").slice(1)}
                  value={said("only")}
                  onChoose={(only) => show({ only: only || undefined })}
                />
              </>
            )}
          </Box>
          {got.all === 0 && (
            <Typography sx={{ mt: 2 }}>
              Nothing was painted yet. <To to="/bench">Begin at the bench</To>: what is read of a
              sitting is laid beside what was computed here.
            </Typography>
          )}
          {got.all > 0 && got.sittings.length === 0 && (
            <Typography sx={{ mt: 2 }}>
              None of them has that.{" "}
              <Button
                color="inherit"
                onClick={() =>
                  show({ words: undefined, medium: undefined, system: undefined, only: undefined })
                }
              >
                show all
              </Button>
            </Typography>
          )}
          <Besides chosen={chosen} all={got.sittings} />
          <Box
            component="ol"
            sx={{
              m: 0,
              p: 0,
              mt: 2,
              listStyle: "none",
              display: "grid",
              gridTemplateColumns: `repeat(auto-fill, minmax(${few ? 228 : 190}px, 1fr))`,
              gap: 3,
            }}
          >
            {got.sittings.map((s) => (
              <OnShelf
                key={s.id}
                sitting={s}
                size={few ? 224 : 172}
                chosen={chosen.includes(s.id)}
                onToggle={() => toggle(s.id)}
              />
            ))}
          </Box>
          <Button component={To} to="/log/file" color="inherit" sx={{ mt: 2, ml: -1 }}>
            a sitting out of a file
          </Button>
        </Box>
        <Box sx={{ minWidth: 0 }}>
          <Box component="section" aria-label="the tubes">
            <Typography sx={{ fontSize: 20, fontWeight: 600, mb: 1 }}>
              What the tubes turned out to be
            </Typography>
            {takings.data && takings.data.length > 0 ? (
              <Takings of={takings.data} />
            ) : (
              <Typography variant="body2">
                Nothing was taken into the box yet. A sitting that was read dry says what its tubes
                turned out to be.
              </Typography>
            )}
          </Box>
          <Box component="section" aria-label="the eye" sx={{ mt: 4 }}>
            <Typography sx={{ fontSize: 20, fontWeight: 600, mb: 1 }}>
              What became of what you expected
            </Typography>
            <Eye />
          </Box>
        </Box>
      </Box>
    </Shell>
  );
}

/** The way to two sittings beside each other. */
function Besides({ chosen, all }: { chosen: number[]; all: Schemas["OnShelf"][] }) {
  const named = chosen.flatMap((id) => all.filter((s) => s.id === id));
  if (named.length === 0) return null;
  return (
    <Box role="status" sx={{ display: "flex", alignItems: "center", gap: 2, mt: 1, minHeight: 44 }}>
      {named.length < 2 ? (
        <Typography>{named[0]!.name}: choose another to lay beside it.</Typography>
      ) : (
        <Button
          component={To}
          variant="contained"
          to={`/log/${named[1]!.id}/beside/${named[0]!.id}`}
        >
          lay the two beside each other
        </Button>
      )}
    </Box>
  );
}

function OnShelf({
  sitting: s,
  size,
  chosen,
  onToggle,
}: {
  sitting: Schemas["OnShelf"];
  size: number;
  chosen: boolean;
  onToggle: () => void;
}) {
  return (
    <Box component="li" data-sitting={s.id} sx={{ minWidth: 0 }}>
      <ButtonBase
        component={To}
        to={`/log/${s.id}`}
        sx={{
          display: "block",
          textAlign: "left",
          width: "100%",
          "&:hover .name": { bgcolor: grey.track },
        }}
      >
        <PaintedSheet
          places={s.places}
          kind={s.kind}
          width={s.width}
          height={s.height}
          size={size}
          label={`${s.name}, ${sheetWords[s.kind]}: ${readWords(s)}`}
        />
        <Typography className="name" sx={{ fontWeight: 600, mt: 1, overflowWrap: "anywhere" }}>
          {s.name}
          {s.kind !== "wheel" && `: ${sheetWords[s.kind]}`}
        </Typography>
        <Typography variant="body2">
          {day(s.began)}, {mediumWords[s.medium]}
          {!s.ended && ", under way"}
        </Typography>
        <Typography variant="caption" component="p">
          {readWords(s)}
        </Typography>
      </ButtonBase>
      <Button
        color="inherit"
        size="small"
        aria-pressed={chosen}
        onClick={onToggle}
        sx={{
          ml: "-5px",
          minHeight: { xs: 48, md: 40 },
          textDecoration: chosen ? "underline" : "none",
          textDecorationThickness: 2,
          textUnderlineOffset: "5px",
          color: chosen ? grey.ink : grey.third,
        }}
      >
        {chosen ? "chosen to lay beside" : "lay beside another"}
      </Button>
    </Box>
  );
}
