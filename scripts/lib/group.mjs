/** Programs that are started with all that they start, and ended with it. */
import { spawn } from "node:child_process";

/** How long those that were asked to end may take before they are ended outright, in milliseconds. */
const PATIENCE = 5000;

/**
 * Starts a program as the first of a process group of its own.
 * @returns `ended` with its exit code or signal; 1 where it can't be started at all
 */
export function startGroup(command, args, options) {
  const child = spawn(command, args, { ...options, detached: true });
  const ended = new Promise((done) => {
    child.on("error", () => done(1));
    child.on("exit", (code, signal) => done(code ?? signal));
  });
  return { pid: child.pid, child, ended };
}

/** Ends a process group: politely first, so that programs end what they started themselves; then outright. */
export async function endGroup(pid, patience = PATIENCE) {
  if (!pid) return;
  const send = (signal) => {
    try {
      process.kill(-pid, signal);
      return true;
    } catch {
      return false;
    }
  };
  send("SIGTERM");
  for (const end = Date.now() + patience; Date.now() < end && send(0); )
    await new Promise((done) => setTimeout(done, 50));
  send("SIGKILL");
}
