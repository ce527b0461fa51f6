/** Places the things of a chain beside the page. */
import type { Chain } from "@/core/chains/chain";
import { type Layout, layoutOf, type Weighing } from "@/core/chains/layout";

export interface Placing {
  readonly n: number;
  readonly chain: Chain;
  readonly weighing: Weighing;
}
export interface Placed {
  readonly n: number;
  readonly layout: Layout | null;
}

addEventListener("message", ({ data: { n, chain, weighing } }: MessageEvent<Placing>) => {
  try {
    postMessage({ n, layout: layoutOf(chain, weighing) } satisfies Placed);
  } catch {
    postMessage({ n, layout: null } satisfies Placed);
  }
});
