/** salty generate: a large made-up pantry from a seed, for trying out and for benchmarks. */
import { writeFileSync } from "node:fs";
import { generate } from "../demo/generate";
import { BadUse } from "./failure";

function whole(name: string, given: string | boolean | undefined, rest: number, least: number): number {
  const n = given === undefined ? rest : Number(given);
  if (!Number.isInteger(n) || n < least)
    throw new BadUse(`--${name} must be a whole number of at least ${least}, not “${String(given)}”.`);
  return n;
}

export async function generateCommand(
  [file]: string[],
  options: Record<string, string | boolean | undefined>,
): Promise<number> {
  if (!file) throw new BadUse("Name a file to write, or - for standard output.");
  const size = {
    items: whole("items", options.items, 1000, 1),
    seed: whole("seed", options.seed, 1, 0),
    loops: whole("loops", options.loops, 0, 0),
  };
  const text = `${JSON.stringify(generate(size), null, 1)}\n`;
  if (file === "-") process.stdout.write(text);
  else writeFileSync(file, text);
  return 0;
}
