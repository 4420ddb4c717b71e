import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";

/** An empty page until there is something to show, with a word when that is not soon. */
export function Waiting({ failing }: { failing: boolean }) {
  return (
    <Box sx={{ p: 6, maxWidth: 560 }} role="status">
      {failing && (
        <>
          <Typography variant="h2">Not there just now</Typography>
          <Typography sx={{ mt: 1 }}>
            The server or its database does not answer. Nothing is lost, and this page tries again
            by itself.
          </Typography>
        </>
      )}
    </Box>
  );
}
