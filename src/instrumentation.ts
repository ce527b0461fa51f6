/** Runs once when the server starts. */
export async function register(): Promise<void> {
  if (process.env.NEXT_RUNTIME === "nodejs") {
    const { watchForTheEnd, warmUp } = await import("./server/lifetime");
    const { answerDirectly } = await import("./server/direct");
    watchForTheEnd();
    warmUp();
    // scripts/serve.mjs, outside of what the framework bundles, finds it here.
    (globalThis as { saltyDirect?: typeof answerDirectly }).saltyDirect = answerDirectly;
  }
}
