import { queryClient, sittingQuery, underWayQuery } from "./queries";
import { inOneTab } from "./tabs";

/**
 * Hears of what was done in the painter's sittings on other devices, until it is stopped. A browser
 * opens few connections to a server: one tab listens, and tells the others.
 */
export function hearOfChanges(): () => void {
  const others = new BroadcastChannel("gyrophane.changes");
  const heard = (sitting: string) => {
    void queryClient.invalidateQueries(underWayQuery);
    const id = Number(sitting);
    void queryClient.invalidateQueries({
      queryKey: id ? sittingQuery(id).queryKey : ["sitting"],
    });
  };
  others.onmessage = (e: MessageEvent<string>) => heard(e.data);
  const leave = inOneTab("changes", () => {
    const stream = new EventSource("/api/changes");
    stream.onmessage = (e: MessageEvent<string>) => {
      heard(e.data);
      others.postMessage(e.data);
    };
    return () => stream.close();
  });
  return () => {
    leave();
    others.close();
  };
}
