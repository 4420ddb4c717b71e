import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link as To } from "react-router";
import { looksQuery } from "../api/queries";
import { useColours } from "../drawing/screen";
import { grey } from "../drawing/style";
import { OneOf } from "../parts/Choice";
import { familyWords } from "./words";

const over = {
  opaque: "hides the stripe",
  semi: "half hides it",
  transparent: "lets it through",
} as Record<string, string>;

const none = { value: "", name: "not looked at" };

/** A tube without a name: three questions about its look, and what of the library fits them. */
export function ByLook({ onAdd }: { onAdd: (paint: string) => void }) {
  const { fill } = useColours();
  const [family, setFamily] = useState("red");
  const [hiding, setHiding] = useState("");
  const [toward, setToward] = useState("");
  const got = useQuery({
    ...looksQuery({ family, hiding, toward }),
    placeholderData: keepPreviousData,
  });
  const looks = got.data;
  return (
    <Box component="section" aria-label="by its look" sx={{ pb: 1 }}>
      <Typography variant="body2" sx={{ mt: 1 }}>
        No name on it? Draw some of it down over a black stripe, and let a little out with white.
      </Typography>
      {looks && (
        <Box sx={{ display: "flex", flexWrap: "wrap", columnGap: 3 }}>
          <OneOf
            label={`it belongs to: ${familyWords[family]}`}
            shown={`one of the ${familyWords[family]}`}
            of={looks.families.map((f) => ({ value: f, name: familyWords[f] ?? f }))}
            value={family}
            onChoose={(f) => {
              setFamily(f);
              setToward("");
            }}
          />
          <OneOf
            label={`over the stripe: ${over[hiding] ?? none.name}`}
            shown={over[hiding] ?? "over the stripe"}
            of={[none, ...looks.hidings.map((h) => ({ value: h, name: over[h] ?? h }))]}
            value={hiding}
            onChoose={setHiding}
          />
          {looks.leanings.length > 1 && (
            <OneOf
              label={`its tint leans: ${toward || none.name}`}
              shown={
                toward === ""
                  ? "its tint leans"
                  : toward === "centred"
                    ? "leans nowhere"
                    : `leans to ${toward}`
              }
              of={[
                none,
                ...looks.leanings.map((l) => ({
                  value: l,
                  name: l === "centred" ? "nowhere" : `to ${l}`,
                })),
              ]}
              value={toward}
              onChoose={setToward}
            />
          )}
        </Box>
      )}
      {got.error && <Typography role="alert">{got.error.message}</Typography>}
      {looks?.found.map((f) => (
        <Box
          key={f.paint}
          sx={{
            display: "flex",
            alignItems: "center",
            gap: 1,
            minHeight: 44,
            borderTop: `1px solid ${grey.hairline}`,
          }}
        >
          <Box sx={{ width: 52, height: 28, flex: "none", bgcolor: fill(f.shown) }} />
          <Typography variant="body2" sx={{ flex: 1, minWidth: 0 }}>
            {f.name}{" "}
            <Box component="span" sx={{ color: grey.third }}>
              {f.code}, {f.how}
            </Box>
          </Typography>
          <Button color="inherit" onClick={() => onAdd(f.paint)} aria-label={`add ${f.name}`}>
            add
          </Button>
        </Box>
      ))}
      <Typography variant="caption" component="p" sx={{ mt: 1 }}>
        Surer: two swatches of it, straight and 1 to 9 in white.{" "}
        <To to="/box/new">Make a paint of them</To>.
      </Typography>
    </Box>
  );
}
