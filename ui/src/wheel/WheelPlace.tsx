import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Divider from "@mui/material/Divider";
import InputBase from "@mui/material/InputBase";
import MenuItem from "@mui/material/MenuItem";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { useNavigate, useParams, useSearchParams } from "react-router";
import type { Conditions, KeptWheel, Profile, Role, Settings, Slot, WheelContent } from "../api/client";
import { paintsQuery, wheelQuery, wheelsQuery } from "../api/queries";
import { Choice } from "../app/Choice";
import { judgedWords, lightWords, plainSettings, spacingWords } from "../app/choices";
import { Group, ViewingConditions } from "../app/Conditions";
import { PaintPicker } from "../app/PaintPicker";
import { Notice, Shell } from "../app/Shell";
import { figures, grey } from "../app/theme";
import { Waiting } from "../app/Waiting";
import { Drop } from "../drawing/Marks";
import { fill } from "../drawing/screen";
import { StepCard } from "./StepCard";
import { useKeptWheel } from "./useKeptWheel";
import { WheelFigure } from "./WheelFigure";

export function WheelPlace({ painter }: { painter: Profile }) {
  const id = Number(useParams().id);
  return <OneWheel key={id} id={id} painter={painter} />;
}

/** What the address says of the view goes before what was saved. */
function useView(saved: Settings | undefined) {
  const [search, setSearch] = useSearchParams();
  const slot = Number(search.get("slot") ?? "1") - 1;
  const light = search.get("light");
  const judged = search.get("judged");
  const settings = saved && {
    ...saved,
    light: light && light in lightWords ? (light as Settings["light"]) : saved.light,
    judged: judged && judged in judgedWords ? (judged as Settings["judged"]) : saved.judged,
  };
  const show = (view: Record<string, string>) => {
    setSearch(
      (now) => {
        for (const [k, v] of Object.entries(view)) now.set(k, v);
        return now;
      },
      { replace: true },
    );
  };
  return { slot: slot >= 0 && slot < 12 && Number.isInteger(slot) ? slot : 0, settings, show };
}

function OneWheel({ id, painter }: { id: number; painter: Profile }) {
  const own = useKeptWheel(id);
  const { content, change, undo } = own;
  const { slot: chosen, settings, show } = useView(content?.settings);
  const [picking, setPicking] = useState<Role | null>(null);
  const wheel = useQuery({ ...wheelQuery(content?.roles ?? { yellow: "", red: "", blue: "" }, settings ?? plainSettings), enabled: !!content });
  const paints = useQuery(paintsQuery(settings ?? plainSettings));

  useEffect(() => {
    const keys = (e: KeyboardEvent) => {
      const typing = e.target instanceof HTMLInputElement;
      if ((e.ctrlKey || e.metaKey) && e.key === "z" && !typing) {
        e.preventDefault();
        undo();
      } else if (e.target === document.body && (e.key === "ArrowRight" || e.key === "ArrowLeft")) {
        show({ slot: String(((chosen + (e.key === "ArrowRight" ? 1 : 11)) % 12) + 1) });
      }
    };
    window.addEventListener("keydown", keys);
    return () => window.removeEventListener("keydown", keys);
  });

  if (own.query.error && !own.kept) return <Missing painter={painter} sentence={own.query.error.message} />;
  if (!content || !settings) return <Waiting failing={own.query.failureCount > 0} />;

  const choose = (slot: number) => {
    setPicking(null);
    show({ slot: String(slot + 1) });
  };
  const open = (slot: number) => {
    show({ slot: String(slot + 1) });
    const role = wheel.data?.slots[slot]?.role;
    if (role) setPicking(role);
  };
  const set = (view: Partial<Settings>) => {
    change({ ...content, settings: { ...settings, ...view } });
    const { light, judged } = view;
    if (light) show({ light });
    if (judged) show({ judged });
  };

  return (
    <Shell painter={painter} conditions={<WheelBar wheel={wheel.data} content={content} settings={settings} current={id} onSet={set} onSwap={open} />} notice={<Notices own={own} />}>
      <Box sx={{ display: "grid", gridTemplateColumns: { xs: "minmax(0, 1fr)", md: "minmax(0, 1fr) 372px" }, gap: 3 }}>
        <Box sx={{ position: "relative" }}>
          <Heading content={content} own={own} onRename={(name) => change({ ...content, name })} onSpacing={(spacing) => set({ spacing })} />
          {wheel.data && <WheelFigure wheel={wheel.data} chosen={chosen} onChoose={choose} onOpen={open} />}
          {wheel.error && !wheel.data && <Typography role="alert">{wheel.error.message}</Typography>}
          <Legend />
        </Box>
        <Box sx={{ borderLeft: { md: `1px solid ${grey.hairline}` }, pl: { md: 2 }, height: { md: "calc(100vh - 116px)" }, overflowY: { md: "auto" } }}>
          {picking && paints.data ? (
            <PaintPicker
              key={picking}
              role={picking}
              paints={paints.data}
              present={content.roles[picking]}
              taken={Object.values(content.roles)}
              onClose={() => setPicking(null)}
              onPick={(p) => {
                setPicking(null);
                if (p.id !== content.roles[picking]) change({ ...content, roles: { ...content.roles, [picking]: p.id } });
              }}
            />
          ) : (
            wheel.data && (
              <StepCard wheel={wheel.data} slot={wheel.data.slots[chosen]!} settings={settings} onChoose={choose} onSwap={() => open(chosen)} />
            )
          )}
        </Box>
      </Box>
    </Shell>
  );
}

function Missing({ painter, sentence }: { painter: Profile; sentence: string }) {
  const navigate = useNavigate();
  return (
    <Shell painter={painter}>
      <Typography variant="h2">This wheel is not here</Typography>
      <Typography sx={{ my: 2 }}>{sentence}</Typography>
      <Button variant="outlined" onClick={() => void navigate("/")}>
        to my wheels
      </Button>
    </Shell>
  );
}

/** The bar: which wheel, its tubes, and how it is looked at. */
function WheelBar({ wheel, content, settings, current, onSet, onSwap }: {
  wheel?: { slots: Slot[] };
  content: WheelContent;
  settings: Settings;
  current: number;
  onSet: (view: Partial<Conditions>) => void;
  onSwap: (slot: number) => void;
}) {
  return (
    <>
      <Group>
        <WheelMenu name={content.name} current={current} />
        <Box sx={{ display: "flex", gap: "3px" }}>
          {wheel?.slots
            .filter((s) => s.role)
            .map((s) => (
              <Box
                key={s.index}
                component="button"
                aria-label={`swap the ${s.role}, ${s.parts[0]!.name}`}
                title={`${s.parts[0]!.paint} ${s.parts[0]!.name}`}
                onClick={() => onSwap(s.index)}
                sx={{ width: 26, height: 32, p: 0, border: 0, cursor: "pointer", bgcolor: "transparent", lineHeight: 0 }}
              >
                <svg width={26} height={24} aria-hidden>
                  <rect width={26} height={24} fill={fill(s.asPainted)} />
                </svg>
              </Box>
            ))}
        </Box>
      </Group>
      <ViewingConditions view={settings} onSet={onSet} />
    </>
  );
}

function WheelMenu({ name, current }: { name: string; current: number }) {
  const wheels = useQuery(wheelsQuery);
  const navigate = useNavigate();
  return (
    <Choice
      label={`wheel: ${name}`}
      shown={
        <Box component="span" sx={{ maxWidth: 160, overflow: "hidden", textOverflow: "ellipsis", whiteSpace: "nowrap" }}>
          {name}
        </Box>
      }
    >
      {(close) => [
        ...(wheels.data ?? []).map((w) => (
          <MenuItem
            key={w.id}
            selected={w.id === current}
            onClick={() => {
              close();
              void navigate(`/wheel/${w.id}`);
            }}
            sx={{ display: "block", maxWidth: 380 }}
          >
            <Box sx={{ overflow: "hidden", textOverflow: "ellipsis" }}>{w.name}</Box>
            <Typography variant="caption" component="div" sx={{ fontFamily: figures }}>
              {w.roles.yellow} {w.roles.red} {w.roles.blue}
            </Typography>
          </MenuItem>
        )),
        <Divider key="rule" />,
        <MenuItem
          key="new"
          onClick={() => {
            close();
            void navigate("/begin");
          }}
        >
          a new wheel
        </MenuItem>,
      ]}
    </Choice>
  );
}

type Own = ReturnType<typeof useKeptWheel>;

function Heading({ content, own, onRename, onSpacing }: {
  content: WheelContent;
  own: Own;
  onRename: (name: string) => void;
  onSpacing: (spacing: Settings["spacing"]) => void;
}) {
  const [draft, setDraft] = useState<string | null>(null);
  const commit = () => {
    if (draft !== null && draft.trim() !== "" && draft.trim() !== content.name) onRename(draft.trim());
    setDraft(null);
  };
  return (
    <Box sx={{ display: "flex", justifyContent: "space-between", position: { md: "absolute" }, inset: "0 0 auto 0", pointerEvents: "none", "& > *": { pointerEvents: "auto" } }}>
      <Box sx={{ maxWidth: 340, flex: 1 }}>
        <InputBase
          value={draft ?? content.name}
          onFocus={() => setDraft(content.name)}
          onChange={(e) => setDraft(e.target.value)}
          onBlur={commit}
          onKeyDown={(e) => {
            if (e.key === "Enter") e.currentTarget.querySelector("input")?.blur();
            if (e.key === "Escape") setDraft(null);
          }}
          fullWidth
          slotProps={{ input: { "aria-label": "name of the wheel", maxLength: 80, title: content.name } }}
          sx={{ fontSize: 28, lineHeight: "34px", fontWeight: 500, "& input": { p: 0, textOverflow: "ellipsis", height: 36 }, "&.Mui-focused": { borderBottom: `2px solid ${grey.ink}` } }}
        />
        <Choice label={`steps: ${spacingWords[content.settings.spacing]}`} bold={false} shown={<span>steps {spacingWords[content.settings.spacing]}</span>}>
          {(close) =>
            (Object.keys(spacingWords) as Settings["spacing"][]).map((s) => (
              <MenuItem
                key={s}
                selected={s === content.settings.spacing}
                onClick={() => {
                  close();
                  onSpacing(s);
                }}
              >
                {spacingWords[s]}
              </MenuItem>
            ))
          }
        </Choice>
      </Box>
      <Box sx={{ textAlign: "right" }}>
        <Button color="inherit" disabled={!own.canUndo} onClick={own.undo}>
          undo
        </Button>
        <Typography variant="caption" component="p" role="status" sx={{ pr: 1 }}>
          {own.saved ? "saved" : own.waiting ? "not saved yet" : "saving"}
        </Typography>
      </Box>
    </Box>
  );
}

function Notices({ own }: { own: Own }) {
  const refused = own.kept?.refused?.[0];
  return (
    <>
      {own.problem && <Notice>{own.problem}</Notice>}
      {refused && own.kept && (
        <Notice>
          <Box sx={{ flex: "1 1 320px" }}>
            This wheel was changed in two places at once. Shown here: {paintsOf(own.kept)}. Kept beside it: {refused.name}, {paintsOf(refused)}.
          </Box>
          <Button variant="outlined" color="inherit" onClick={() => own.change({ name: refused.name, roles: refused.roles, settings: refused.settings }, refused.id)}>
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

function paintsOf({ roles: r }: Pick<KeptWheel, "roles">): string {
  return `${r.yellow}, ${r.red}, ${r.blue}`;
}

function Legend() {
  const line = { display: "flex", alignItems: "center", gap: 0.75 };
  return (
    <Box sx={{ position: { md: "absolute" }, left: 0, bottom: 0, display: "flex", flexDirection: { xs: "row", md: "column" }, flexWrap: "wrap", gap: { xs: 2, md: 0 }, color: grey.third, fontSize: 12, lineHeight: "17px" }}>
      <span>
        <b>rim</b> as painted
      </span>
      <span>
        <b>ribbon</b> undertone, thick is bright
      </span>
      <span>
        <b>dots</b> clean where it reaches past them
      </span>
      <span>
        <b>‖</b> the step jumps
      </span>
      <Box sx={line}>
        <Drop verdict="clean" height={12} /> clean <Drop verdict="softened" height={12} /> softened <Drop verdict="muddy" height={12} /> muddy
      </Box>
    </Box>
  );
}
