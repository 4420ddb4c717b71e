import Button from "@mui/material/Button";
import Box from "@mui/material/Box";
import InputBase from "@mui/material/InputBase";
import Typography from "@mui/material/Typography";
import { useState, type ReactNode } from "react";
import { useNavigate } from "react-router";
import type { KeptWheel, Profile } from "../api/client";
import type { useKeptWheel } from "../parts/useKeptWheel";
import { kindWords } from "../parts/choices";
import { Shell } from "./Shell";
import { Notice } from "./Notice";
import { grey } from "../drawing/style";
import { WheelMenu, type KeptPlace } from "../parts/WheelMenu";

type Own = ReturnType<typeof useKeptWheel>;

/** The name of what is kept, written over to change it. */
export function NameField({ name, onRename }: { name: string; onRename: (name: string) => void }) {
  const [draft, setDraft] = useState<string | null>(null);
  const commit = () => {
    if (draft !== null && draft.trim() !== "" && draft.trim() !== name) onRename(draft.trim());
    setDraft(null);
  };
  return (
    <InputBase
      value={draft ?? name}
      onFocus={() => setDraft(name)}
      onChange={(e) => setDraft(e.target.value)}
      onBlur={commit}
      onKeyDown={(e) => {
        if (e.key === "Enter" && e.target instanceof HTMLElement) e.target.blur();
        if (e.key === "Escape") setDraft(null);
      }}
      fullWidth
      slotProps={{ input: { "aria-label": "name of the wheel", maxLength: 80, title: name } }}
      sx={{
        fontSize: 28,
        lineHeight: "34px",
        fontWeight: 500,
        "& input": { p: 0, textOverflow: "ellipsis", height: 36 },
        "&.Mui-focused": { borderBottom: `2px solid ${grey.ink}` },
      }}
    />
  );
}

/** Undo, and whether all is saved. */
export function SavedMark({ own }: { own: Own }) {
  return (
    <Box sx={{ textAlign: "right", flex: "none" }}>
      <Button color="inherit" disabled={!own.canUndo} onClick={own.undo}>
        undo
      </Button>
      <Typography variant="caption" component="p" role="status" sx={{ pr: 1 }}>
        {own.saved ? "saved" : own.waiting ? "not saved yet" : "saving"}
      </Typography>
    </Box>
  );
}

export function KeptNotices({ own }: { own: Own }) {
  const refused = own.kept?.refused?.[0];
  return (
    <>
      {own.problem && <Notice>{own.problem}</Notice>}
      {refused && own.kept && (
        <Notice>
          <Box sx={{ flex: "1 1 320px" }}>
            This wheel was changed in two places at once. Shown here: {paintsOf(own.kept)}. Kept
            beside it: {refused.name}, {paintsOf(refused)}.
          </Box>
          <Button
            variant="outlined"
            color="inherit"
            onClick={() =>
              own.change(
                {
                  name: refused.name,
                  system: refused.system,
                  settings: refused.settings,
                  archived: refused.archived,
                },
                refused.id,
              )
            }
          >
            take the one kept beside
          </Button>
          <Button color="inherit" onClick={() => own.letGo(refused.id)}>
            stay with this one
          </Button>
        </Notice>
      )}
    </>
  );
}

function paintsOf({ system }: Pick<KeptWheel, "system">): string {
  return `${kindWords[system.kind].name}, ${system.roles.flat().join(", ")}`;
}

export function MissingWheel({ painter, sentence }: { painter: Profile; sentence: string }) {
  const navigate = useNavigate();
  return (
    <Shell painter={painter} title="There is no such wheel">
      <Typography variant="h2">This wheel is not here</Typography>
      <Typography sx={{ my: 2 }}>{sentence}</Typography>
      <Button variant="outlined" onClick={() => void navigate("/")}>
        to my wheels
      </Button>
    </Shell>
  );
}

const placeTitles: Record<KeptPlace, string> = {
  wheel: "Wheel",
  system: "System",
  pairings: "Pairings",
  path: "Path",
  bench: "Bench",
};

/** The frame around a place that shows one kept system: which one, and how it is looked at. */
export function KeptShell({
  painter,
  own,
  id,
  place,
  notice,
  children,
}: {
  painter: Profile;
  own: Own & { content: NonNullable<Own["content"]> };
  id: number;
  place: KeptPlace;
  notice?: ReactNode;
  children: ReactNode;
}) {
  const { content } = own;
  return (
    <Shell
      painter={painter}
      title={`${placeTitles[place]} of ${content.name}`}
      open={<WheelMenu name={content.name} current={id} place={place} />}
      viewed={{
        view: content.settings,
        onSet: (v) => own.change({ ...content, settings: { ...content.settings, ...v } }),
      }}
      notice={
        <>
          <KeptNotices own={own} />
          {notice}
        </>
      }
    >
      {children}
    </Shell>
  );
}
