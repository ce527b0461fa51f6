/** Who contributes processes to the network. A new contributor is one entry here. */
import { besideMembers, memberProcesses } from "./members";
import { besideUses, besideTaught, teachers, useProcesses } from "./use-processes";
import { type Contributor, contributor, flows, type ProcessSpec } from "./process";

const source = contributor({
  kind: "source",
  processes: ({ lines, ticks, price, currency }) => [
    { sort: "source", lines: flows(lines), needs: [], price, currency, ticks, level: 0 },
  ],
});

/** One process; where uses teach it, one for each item that does, which must be at hand. */
const recipe = contributor({
  kind: "recipe",
  processes(record, catalogue) {
    const { kind, status, lines, ticks, fee, feeCurrency, level, taughtBy } = record;
    if (status === "retired") return [];
    const spec = { sort: kind, lines: flows(lines), price: fee, currency: feeCurrency, ticks, level: level ?? 0 };
    if (taughtBy !== null) return [{ ...spec, needs: [taughtBy] }];
    const by = teachers(catalogue, record.id);
    return by.length ? by.map((item): ProcessSpec => ({ ...spec, needs: [item] })) : [{ ...spec, needs: [] }];
  },
  beside: besideTaught,
});

/** Uses that give something or leave something of the item; and what it counts as. */
const item = contributor({
  kind: "item",
  processes: (record, catalogue) => [...useProcesses(record, catalogue), ...memberProcesses(record, catalogue)],
  *beside(before, next, touched) {
    yield* besideUses(before, next, touched);
    yield* besideMembers(before, next, touched);
  },
});

export const CONTRIBUTORS: readonly Contributor[] = [source, recipe, item];
