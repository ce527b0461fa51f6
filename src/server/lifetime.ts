/**
 * Beginning and end of the server process. Ends what would keep it alive: event streams on a signal, and itself when
 * its starter is gone.
 */
import { host, openHost } from "./host";

/** Opens the database and reads the pantries while the first page is still on its way. */
export const warmUp = (): void =>
  void host()
    .then((h) => h.warm())
    .catch(() => undefined);

export function watchForTheEnd(): void {
  for (const signal of ["SIGTERM", "SIGINT"] as const)
    process.on(signal, () => {
      void openHost()
        ?.then((host) => host.closeStreams())
        .catch(() => undefined);
    });
  const parent = Number(process.env.SALTY_PARENT ?? 0);
  if (!parent) return;
  // A starter that was killed outright can't tell us: look after it, or this server would keep its port forever.
  setInterval(() => {
    try {
      process.kill(parent, 0);
    } catch {
      process.exit(0);
    }
  }, 500).unref();
}
