/** Who contributes processes to the network. A new contributor is one entry here. */
import { type Contributor, contributor } from "./process";

const source = contributor({
  kind: "source",
  processes: ({ lines, ticks, price, currency }) => [
    { sort: "source", lines, needs: [], price, currency, ticks, level: 0 },
  ],
});

const recipe = contributor({
  kind: "recipe",
  processes: ({ kind, status, lines, ticks, fee, feeCurrency, level, taughtBy }) =>
    status === "retired"
      ? []
      : [
          {
            sort: kind,
            lines,
            needs: taughtBy === null ? [] : [taughtBy],
            price: fee,
            currency: feeCurrency,
            ticks,
            level: level ?? 0,
          },
        ],
});

export const CONTRIBUTORS: readonly Contributor[] = [source, recipe];
