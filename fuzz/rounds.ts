/**
 * Rounds of a fuzzer: seeded, bounded by time, and what fails names its seed. FUZZ_SECONDS and FUZZ_SEED choose; npm
 * run fuzz sets them.
 */
import { it } from "vitest";
import { seeded } from "../src/core/numbers/seeded";

export type Random = () => number;
const SECONDS = Number(process.env.FUZZ_SECONDS) || 4;
const FIRST = Number(process.env.FUZZ_SEED) || 1;

export function fuzz(name: string, round: (random: Random, seed: number) => void | Promise<void>): void {
  it(
    name,
    async () => {
      const end = Date.now() + SECONDS * 1000;
      let rounds = 0;
      for (let seed = FIRST; rounds === 0 || Date.now() < end; seed++, rounds++) {
        try {
          await round(seeded(seed), seed);
        } catch (error) {
          throw new Error(`FUZZ_SEED=${seed} npm run fuzz -- -t "${name}"\n${(error as Error).message}`, {
            cause: error,
          });
        }
      }
      console.log(`${name}: ${rounds} rounds from seed ${FIRST}`);
    },
    SECONDS * 1000 + 120_000,
  );
}

export const below = (random: Random, n: number): number => Math.floor(random() * n);
export const pick = <T>(random: Random, list: readonly T[]): T => list[below(random, list.length)];
