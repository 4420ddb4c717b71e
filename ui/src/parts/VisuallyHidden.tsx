import visuallyHidden from "@mui/utils/visuallyHidden";
import type { ReactNode } from "react";

/** Words for those who hear the page: what is only drawn, or stands elsewhere for those who see it. */
export const VisuallyHidden = ({ children }: { children: ReactNode }) => (
  <span style={visuallyHidden}> {children} </span>
);
