/** Starts and ends the program as a user would, against a database of its own or a cluster of its own. */
import { type ChildProcess, spawn } from "node:child_process";
import { createServer } from "node:net";
import { freshDatabase } from "../src/store/testing/database";

export const freePort = (): Promise<number> =>
  new Promise((done) => {
    const server = createServer();
    server.listen(0, "127.0.0.1", () => {
      const { port } = server.address() as { port: number };
      server.close(() => done(port));
    });
  });

export class Program {
  private child: ChildProcess | null = null;
  private log = "";

  constructor(
    readonly port: number,
    private readonly env: Record<string, string>,
  ) {}

  /** A program that serves the demo from a new database of that name. */
  static async on(database: string): Promise<Program> {
    const program = new Program(await freePort(), { DATABASE_URL: (await freshDatabase(database)).url });
    await program.start();
    return program;
  }

  get base(): string {
    return `http://127.0.0.1:${this.port}`;
  }

  async start(): Promise<void> {
    const child = spawn(process.execPath, ["scripts/start.mjs"], {
      env: { ...process.env, ...this.env, PORT: String(this.port) },
      stdio: ["ignore", "pipe", "pipe"],
    });
    this.child = child;
    for (const stream of [child.stdout, child.stderr])
      stream?.on("data", (text: Buffer) => {
        this.log += text;
      });
    await this.until(async () => (await fetch(`${this.base}/api/health`)).ok, 300_000);
  }

  async until(test: () => Promise<boolean>, most = 150_000): Promise<void> {
    const end = Date.now() + most;
    while (Date.now() < end) {
      if (await test().catch(() => false)) return;
      await new Promise((r) => setTimeout(r, 100));
    }
    throw new Error(`Waited ${most} ms in vain. The program said:\n${this.log}`);
  }

  get said(): string {
    return this.log;
  }
  get pid(): number {
    return this.child?.pid ?? 0;
  }

  /** Ends it with a signal; resolves to the milliseconds it took. */
  end(signal: NodeJS.Signals = "SIGTERM"): Promise<number> {
    const child = this.child;
    this.child = null;
    if (!child || child.exitCode !== null) return Promise.resolve(0);
    const began = Date.now();
    return new Promise((done) => {
      child.once("exit", () => done(Date.now() - began));
      child.kill(signal);
    });
  }
}
