import Box from "@mui/material/Box";
import Divider from "@mui/material/Divider";
import MenuItem from "@mui/material/MenuItem";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate } from "react-router";
import { wheelsQuery } from "../api/queries";
import { Choice } from "./Choice";
import { kindWords } from "./choices";
import { grey } from "../drawing/style";

/** The places that show a kept system. */
export type KeptPlace = "wheel" | "system" | "pairings" | "path" | "bench";

/** Which of the kept systems is shown; opens another in the same place. */
export function WheelMenu({
  name,
  current,
  place,
}: {
  name: string;
  current: number;
  place: KeptPlace;
}) {
  const wheels = useQuery(wheelsQuery);
  const navigate = useNavigate();
  const [archived, setArchived] = useState(false);
  const shown = (wheels.data ?? []).filter((w) => archived || !w.archived || w.id === current);
  const hidden = (wheels.data ?? []).length - shown.length;
  return (
    <Choice
      label={`wheel: ${name}`}
      shown={
        <Box
          component="span"
          sx={{
            maxWidth: { md: 240, lg: 330 },
            overflow: "hidden",
            textOverflow: "ellipsis",
            whiteSpace: "nowrap",
          }}
        >
          {name}
        </Box>
      }
    >
      {(close) => [
        ...shown.map((w) => (
          <MenuItem
            key={w.id}
            selected={w.id === current}
            onClick={() => {
              close();
              void navigate(`/${place}/${w.id}`);
            }}
            sx={{ display: "block", maxWidth: 380 }}
          >
            <Box
              sx={{
                overflow: "hidden",
                textOverflow: "ellipsis",
                color: w.archived ? grey.third : grey.ink,
              }}
            >
              {w.name}
            </Box>
            <Typography variant="caption" component="div">
              {kindWords[w.system.kind].name}
              {w.archived && ", archived"}
            </Typography>
          </MenuItem>
        )),
        <Divider key="rule" />,
        hidden > 0 && (
          <MenuItem key="archived" onClick={() => setArchived(true)}>
            {hidden} archived
          </MenuItem>
        ),
        <MenuItem
          key="new"
          onClick={() => {
            close();
            void navigate("/begin");
          }}
        >
          a new wheel
        </MenuItem>,
        <MenuItem
          key="file"
          onClick={() => {
            close();
            void navigate("/begin/file");
          }}
        >
          one out of a file
        </MenuItem>,
      ]}
    </Choice>
  );
}
