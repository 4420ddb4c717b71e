import Box from "@mui/material/Box";
import MenuItem from "@mui/material/MenuItem";
import { styled } from "@mui/material/styles";
import visuallyHidden from "@mui/utils/visuallyHidden";
import Typography from "@mui/material/Typography";
import { useIsFetching } from "@tanstack/react-query";
import { useEffect, useState, type ReactNode } from "react";
import type { Profile } from "../api/client";
import { useReady } from "../api/queries";
import { outbox } from "../api/waiting";
import { aboveRail, grey, phoneRail } from "../drawing/style";
import { useSquint } from "../drawing/screen";
import { Mark } from "../drawing/Marks";
import { Choice } from "../parts/Choice";
import { Group, ViewingConditions, type Viewed } from "../parts/Conditions";
import { useHolding } from "../parts/holding";
import { usePhone } from "../parts/usePhone";
import { DryNotice } from "./DryNotice";
import { Foot } from "./Foot";
import { FirstMinute, useFirstMinute } from "./FirstMinute";
import { Notice } from "./Notice";
import { ConditionsChip, More } from "./PhoneSheets";
import { PhoneRail, Rail, usePlaceKeys } from "./Rail";
import { HoldChoice, Holding } from "./Holding";
import { Squint } from "./Squint";
import { SurroundChoice } from "./surround";
import { UnderWay, useUnderWay } from "./UnderWay";
import { usePainterDeeds } from "./usePainterDeeds";
import { Aside, SaveWaiting } from "./WaitingHere";

type Framed = {
  painter: Profile;
  /** For those who hear the page. */
  title: string;
  /** The name of what is open, and on a desk what stands beside it. */
  open?: ReactNode;
  beside?: ReactNode;
  viewed?: Viewed;
  /** Hands are wet here: what is pressed is larger. */
  wet?: boolean;
  notice?: ReactNode;
  children: ReactNode;
};

/** The frame around a place: on a desk bar, rail and foot; on a phone one line on top and the rail below. */
export function Shell(of: Framed) {
  const ready = useReady();
  const { phone } = usePhone();
  usePlaceKeys();
  useEffect(() => {
    if (ready.data) outbox.wake();
  }, [ready.data]);
  const notices = (
    <>
      {ready.data === false && (
        <Notice>
          The server or its database does not answer. Nothing is lost: what you change is kept here
          and saved when it is back.
          <SaveWaiting />
        </Notice>
      )}
      <DryNotice />
      {of.notice}
      <Aside />
    </>
  );
  return phone ? <OnPhone {...of} notice={notices} /> : <OnDesk {...of} notice={notices} />;
}

const Bar = styled("header")({
  display: "flex",
  flexWrap: "wrap",
  alignItems: "center",
  columnGap: 8,
  minHeight: 48,
  padding: "0 24px 0 12px",
  borderBottom: `1px solid ${grey.hairline}`,
});

function OnDesk({ painter, open, beside, viewed, notice, title, children }: Framed) {
  const underWay = useUnderWay();
  const firstMinute = useFirstMinute();
  const minute = painter.demo && firstMinute.shown;
  const { held } = useHolding();
  return (
    <Box
      sx={{
        minHeight: "100vh",
        display: "flex",
        flexDirection: "column",
        "--strip": `${(minute ? 41 : 0) + (held ? 42 : 0)}px`,
      }}
    >
      <Bar>
        <Box sx={{ display: "flex", alignItems: "center", gap: 1, mr: 1 }}>
          <Mark />
          <Typography
            component="span"
            sx={{
              fontSize: 16,
              fontWeight: 600,
              // A sitting that is under way needs the room.
              ...(underWay && { display: { xs: "none", xl: "inline" } }),
            }}
          >
            Gyrophane
          </Typography>
        </Box>
        {open && (
          <Group>
            {open}
            {beside}
          </Group>
        )}
        {viewed && <ViewingConditions {...viewed} />}
        <Box sx={{ flex: 1 }} />
        <UnderWay />
        <HoldChoice />
        <Squint />
        <SurroundChoice />
        <PainterMenu painter={painter} />
      </Bar>
      {minute && <FirstMinute />}
      <Holding />
      {notice}
      <Box sx={{ flex: 1, display: "flex", minHeight: 0 }}>
        <Rail />
        <Main title={title} padding="16px 24px 8px">
          {children}
        </Main>
      </Box>
      <Foot padding="4px 24px 8px 116px" />
    </Box>
  );
}

/** A thumb's size for what is pressed; a word in a sentence is met around it. */
const thumb = (least: number) => ({
  "& :where(button, a.MuiButton-root, [role=button]:not([data-word], g, path, rect, circle))": {
    minHeight: least,
    minWidth: 48,
  },
  "& [data-word]": { position: "relative" },
  "& [data-word]::after": { content: '""', position: "absolute", inset: "-14px -4px" },
});

function OnPhone({ painter, open, viewed, wet, notice, title, children }: Framed) {
  const { lying } = usePhone();
  const underWay = useUnderWay();
  const squinting = useSquint();
  const [more, setMore] = useState(false);
  return (
    <Box
      sx={{
        minHeight: "100dvh",
        ...(lying ? { pl: `${phoneRail.wide}px` } : { pb: aboveRail }),
        // A thumb's size for what is pressed.
        ...thumb(wet ? 56 : 48),
      }}
    >
      <Box
        component="header"
        sx={{
          display: "flex",
          alignItems: "center",
          gap: 1,
          minHeight: 52,
          px: 2,
          borderBottom: `1px solid ${grey.hairline}`,
        }}
      >
        <Box
          sx={{ flex: 1, minWidth: 0, fontSize: 17, fontWeight: 600, "& button": { fontSize: 17 } }}
        >
          {open ?? title}
        </Box>
        {squinting && <Squint />}
        {viewed && <ConditionsChip {...viewed} />}
      </Box>
      <Holding />
      {notice}
      <Main title={title} padding="12px 16px 8px">
        {children}
      </Main>
      <Foot padding="8px 16px 16px" />
      <PhoneRail
        lying={lying}
        under={
          underWay && {
            says: `${underWay.painted} of ${underWay.places}`,
            to: `/bench/sitting/${underWay.id}`,
          }
        }
        onMore={() => setMore(true)}
      />
      <More painter={painter} open={more} onClose={() => setMore(false)} />
    </Box>
  );
}

function Main({
  title,
  padding,
  children,
}: {
  title: string;
  padding: string;
  children: ReactNode;
}) {
  const coming = useIsFetching({ predicate: (q) => q.state.status === "pending" });
  return (
    <Box component="main" aria-busy={coming > 0} sx={{ flex: 1, minWidth: 0, p: padding }}>
      <Typography component="h1" sx={visuallyHidden}>
        {title}
      </Typography>
      {children}
    </Box>
  );
}

function PainterMenu({ painter }: { painter: Profile }) {
  const { deeds, dialogs } = usePainterDeeds(painter);
  return (
    <>
      <Choice
        label={`painter: ${painter.name}`}
        bold={false}
        shown={
          <Box
            component="span"
            sx={{
              maxWidth: 118,
              overflow: "hidden",
              textOverflow: "ellipsis",
              whiteSpace: "nowrap",
            }}
          >
            {painter.name}
          </Box>
        }
      >
        {(close) =>
          deeds.map(({ words, does }) => (
            <MenuItem
              key={words}
              onClick={() => {
                close();
                does();
              }}
            >
              {words}
            </MenuItem>
          ))
        }
      </Choice>
      {dialogs}
    </>
  );
}
