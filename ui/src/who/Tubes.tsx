import Box from "@mui/material/Box";
import ButtonBase from "@mui/material/ButtonBase";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useQueries, useQuery } from "@tanstack/react-query";
import { useDeferredValue } from "react";
import { answer, client, type Schemas } from "../api/client";
import { nameQuery } from "../api/queries";
import { useColours } from "../drawing/screen";
import { grey } from "../drawing/style";

export type Sold = Schemas["NamedSet"]["sold"];

/** Words on tubes, with commas or lines between. */
export const parted = (text: string) =>
  text
    .split(/[,;\n]/)
    .map((s) => s.trim())
    .filter(Boolean);

/** What the words on some tubes are taken for; what nothing is called is told as such. */
export function useNamed(text: string, sold: Sold) {
  const names = parted(useDeferredValue(text)).slice(0, 60);
  return useQueries({ queries: names.map((words) => nameQuery(words.slice(0, 80), sold)) }).map(
    (q) => q.data,
  );
}

/** The words on one's tubes, and beneath what each is taken for; sets as they are sold fill it. */
export function TubesField({
  text,
  sold,
  onText,
}: {
  text: string;
  sold: Sold;
  onText: (text: string, sold: Sold) => void;
}) {
  const { fill } = useColours();
  const sets = useQuery({
    queryKey: ["named sets"],
    queryFn: () => answer(client.GET("/api/names/sets")),
    staleTime: Infinity,
    retry: false,
  });
  const named = useNamed(text, sold);
  return (
    <Box>
      <TextField
        fullWidth
        multiline
        maxRows={3}
        label="what is printed on them"
        placeholder="lemon yellow, permanent rose, ultramarine"
        value={text}
        onChange={(e) => onText(e.target.value, sold)}
        slotProps={{ htmlInput: { maxLength: 2000, autoComplete: "off" } }}
      />
      <Box
        role="group"
        aria-label="what they are taken for"
        sx={{
          display: "flex",
          flexWrap: "wrap",
          columnGap: 2,
          rowGap: 0.5,
          mt: named.length ? 1 : 0,
        }}
      >
        {named.map(
          (n, i) =>
            n && (
              <Box
                key={`${n.asked} ${i}`}
                title={[n.found[0]?.how, n.notSure && n.found[0]?.tell].filter(Boolean).join("; ")}
                sx={{ display: "flex", alignItems: "center", gap: 0.75, minWidth: 0 }}
              >
                <Box
                  sx={{
                    width: 18,
                    height: 18,
                    flex: "none",
                    ...(n.found[0]
                      ? { bgcolor: fill(n.found[0].shown) }
                      : { border: `1px dashed ${grey.ink}` }),
                  }}
                />
                <Typography variant="body2" sx={{ overflowWrap: "anywhere" }}>
                  {n.asked}{" "}
                  <Box component="span" sx={{ color: grey.second }}>
                    {n.found[0]
                      ? `${n.found[0].code}${n.notSure ? ", not sure which" : ""}`
                      : "nothing is called so"}
                  </Box>
                </Typography>
              </Box>
            ),
        )}
      </Box>
      <Box sx={{ display: "flex", flexWrap: "wrap", columnGap: 3, mt: 0.5 }}>
        {sets.data?.map((s) => (
          <ButtonBase
            key={s.name}
            onClick={() => onText(s.names.join(", "), s.sold)}
            sx={{
              fontSize: 15,
              fontWeight: 500,
              minHeight: 40,
              "&:hover": { bgcolor: grey.track },
            }}
          >
            {s.name}
          </ButtonBase>
        ))}
      </Box>
    </Box>
  );
}
