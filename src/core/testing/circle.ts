/** Seeded pantries in which every recipe gives back nearly what it takes: the border between losing and gaining. */
import { seeded } from "../numbers/seeded";

export interface Border {
  readonly seed: number;
  readonly items: number;
  readonly recipes: number;
  /** Share of recipes that give a tenth more than they take. */
  readonly gaining: number;
}

/** Recipe lines over a hidden worth of every item; most lose up to 40% of it, some keep it to four digits. */
export function nearTies({ seed, items, recipes, gaining }: Border): string {
  const random = seeded(seed);
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)];
  const worth = Array.from({ length: items }, () => 1 + Math.floor(random() * 20));
  const entry = (chances: readonly number[]) => {
    const item = Math.floor(random() * items);
    const [min, max] = pick([
      [1, 1],
      [2, 2],
      [3, 3],
      [1, 2],
      [0.5, 0.5],
      [4, 4],
      [1, 3],
      [0.1, 0.1],
      [0.3, 0.3],
    ]);
    const chance = pick(chances);
    return { item, min, max, chance, value: ((min + max) / 2) * worth[item] * chance };
  };
  const say = (e: { item: number; chance: number }, quantity: string) =>
    `${quantity} I${e.item}${e.chance < 1 ? ` ${e.chance * 100}%` : ""}`;
  const lines = ["gather I0 in 5s"];
  for (let k = 0; k < recipes; k++) {
    const ins = Array.from({ length: 1 + Math.floor(random() * 3) }, () => entry([1]));
    const outs = Array.from({ length: 1 + Math.floor(random() * 2) }, () => entry([1, 1, 1, 0.5, 0.1]));
    const kept = random() < gaining ? 1.1 : pick([0.6, 0.8, 1, 1, 0.95]);
    const total = (list: readonly { value: number }[]) => list.reduce((t, e) => t + e.value, 0);
    const scale = (total(ins) * kept) / total(outs);
    const given = outs.map((e) => say(e, String(Number((((e.min + e.max) / 2) * scale).toPrecision(4)))));
    const tool =
      random() < 0.1 ? ` using I${Math.floor(random() * items)} lasting ${1 + Math.floor(random() * 9)}` : "";
    lines.push(
      `R${k}: ${ins.map((e) => say(e, e.min === e.max ? String(e.min) : `${e.min}..${e.max}`)).join(" + ")} -> ${given.join(" + ")}${tool}`,
    );
  }
  return lines.join("\n");
}
