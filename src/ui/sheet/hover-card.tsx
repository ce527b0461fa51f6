"use client";
/** The player's card of an item beside whatever names it, on hover and while it has the focus. */
import { HoverCard } from "radix-ui";
import type { ReactNode } from "react";
import type { Item } from "@/core/kinds/index";
import { Card } from "./player-card";

export function WithCard({ item, children }: { readonly item: Item; readonly children: ReactNode }) {
  return (
    <HoverCard.Root openDelay={350} closeDelay={80}>
      <HoverCard.Trigger asChild>
        <span className="inline-flex min-w-0">{children}</span>
      </HoverCard.Trigger>
      <HoverCard.Portal>
        <HoverCard.Content side="bottom" align="start" sideOffset={4} collisionPadding={8} className="z-50 shadow-2xl">
          <Card item={item} />
        </HoverCard.Content>
      </HoverCard.Portal>
    </HoverCard.Root>
  );
}
