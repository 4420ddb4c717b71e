import Box from "@mui/material/Box";
import ButtonBase from "@mui/material/ButtonBase";
import Popover from "@mui/material/Popover";
import Typography from "@mui/material/Typography";
import { useState, type ReactNode } from "react";
import { Link as To } from "react-router";
import { grey } from "../drawing/style";
import { terms } from "./terms";

/** A word that says in a sentence, with its picture, what it means: dotted under, one press opens it. */
export function Word({
  of,
  children,
  more,
}: {
  of: keyof typeof terms;
  children?: ReactNode;
  /** What there is to say of the very thing it stands beside. */
  more?: ReactNode;
}) {
  const [at, setAt] = useState<HTMLElement | null>(null);
  const { word, says, picture } = terms[of];
  return (
    <>
      <ButtonBase
        component="span"
        aria-haspopup="dialog"
        data-word={of}
        onClick={(e) => {
          e.preventDefault(); // also where the word stands in a link
          e.stopPropagation();
          setAt(e.currentTarget);
        }}
        sx={{
          font: "inherit",
          color: "inherit",
          verticalAlign: "baseline",
          borderBottom: `1px dotted ${grey.third}`,
        }}
      >
        {children ?? word}
      </ButtonBase>
      <Popover
        open={at !== null}
        anchorEl={at}
        onClose={() => setAt(null)}
        anchorOrigin={{ vertical: "bottom", horizontal: "left" }}
        slotProps={{
          paper: {
            role: "dialog",
            "aria-label": word,
            sx: { border: `1px solid ${grey.ink}`, p: 2, maxWidth: 340 },
          },
        }}
      >
        <Typography variant="h3">{word}</Typography>
        <Picture of={picture} />
        <Typography>{says}</Typography>
        {more}
        <Box sx={{ mt: 1 }}>
          <To to="/words">all words</To>
        </Box>
      </Popover>
    </>
  );
}

/** The picture of a word, with the room it stands in. */
export function Picture({ of }: { of: ReactNode }) {
  return <Box sx={{ display: "flex", gap: 1.5, alignItems: "center", my: 1 }}>{of}</Box>;
}
