/** The production build running on a database of its own, with the demo and larger pantries. */
import { spawn } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { createServer } from "node:net";
import { tmpdir } from "node:os";
import { join } from "node:path";

const freePort = (): Promise<number> =>
  new Promise((done) => {
    const server = createServer();
    server.listen(0, "127.0.0.1", () => {
      const { port } = server.address() as { port: number };
      server.close(() => done(port));
    });
  });

const run = (args: readonly string[], env: object): Promise<void> =>
  new Promise((done, fail) => {
    const child = spawn(process.execPath, args, {
      env: { ...process.env, ...env },
      stdio: ["ignore", "ignore", "inherit"],
    });
    child.on("exit", (code) => (code === 0 ? done() : fail(new Error(`${args.join(" ")} ended with ${code}`))));
  });

export interface Program {
  /** Its address, without a slash at the end. */
  readonly base: string;
  /** Makes a pantry of so many items and imports it. */
  import(items: number, key: string): Promise<void>;
}

/** Starts the program, lets `work` use it, and ends it. */
export async function withProgram(work: (program: Program) => Promise<void>): Promise<void> {
  const folder = mkdtempSync(join(tmpdir(), "salty-bench-"));
  const port = await freePort();
  const env = { SALTY_DATA: join(folder, "data"), DATABASE_URL: "", PORT: String(port) };
  const program = spawn(process.execPath, ["scripts/start.mjs"], {
    env: { ...process.env, ...env },
    stdio: ["ignore", "pipe", "inherit"],
  });
  let said = "";
  program.stdout.on("data", (text: Buffer) => {
    said += text;
  });
  const base = `http://127.0.0.1:${port}`;
  try {
    const end = Date.now() + 300_000;
    while (!(await fetch(`${base}/api/health`).catch(() => null))?.ok) {
      if (Date.now() > end || program.exitCode !== null) throw new Error(`The program did not start:\n${said}`);
      await new Promise((done) => setTimeout(done, 200));
    }
    await work({
      base,
      async import(items, key) {
        const file = join(folder, `${key}.json`);
        await run(["dist/salty.mjs", "generate", file, "--items", String(items)], {});
        await run(["dist/salty.mjs", "import", file, "--pantry", key], env);
      },
    });
  } finally {
    program.kill("SIGTERM");
    await new Promise((done) => program.once("exit", done));
    rmSync(folder, { recursive: true, force: true });
  }
}
