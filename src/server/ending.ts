/** Ends what would keep the process alive: event streams on a signal, and the process when its starter is gone. */
import { openHost } from "./host";

export function watchForTheEnd(): void {
  for (const signal of ["SIGTERM", "SIGINT"] as const)
    process.on(signal, () => {
      void openHost()
        ?.then((host) => host.closeStreams())
        .catch(() => undefined);
    });
  const parent = Number(process.env.SALTY_PARENT ?? 0);
  if (!parent) return;
  // A starter that was killed outright can't tell us: look after it, or this server would keep its port for ever.
  setInterval(() => {
    try {
      process.kill(parent, 0);
    } catch {
      process.exit(0);
    }
  }, 500).unref();
}
