/** Runs once when the server starts: an open event stream must not keep the process from ending. */
export async function register(): Promise<void> {
  if (process.env.NEXT_RUNTIME !== "nodejs") return;
  const { openHost } = await import("./server/host");
  for (const signal of ["SIGTERM", "SIGINT"] as const)
    process.on(signal, () => {
      void openHost()?.then((h) => h.closeStreams()).catch(() => undefined);
    });
}
