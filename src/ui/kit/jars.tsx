"use client";
/** How records are shown everywhere: icons, grains of rarity, the labels of items. */
import { useSyncExternalStore } from "react";
import { held } from "@/core/catalogue/inheritance";
import type { LineTarget } from "@/core/notation/line";
import { OWN_PICTURE } from "@/core/pictures/own-picture";
import { membersOf } from "@/core/process/members";
import type { Id } from "@/core/schema/id";
import { useLivePart, useStore } from "../pantry/provider";
import { cx } from "./kit";

/** The pantry that this page shows: the first part of its address. */
const pantryInAddress = (): string =>
  typeof window === "undefined" ? "" : encodeURIComponent(window.location.pathname.split("/")[1] ?? "");

/** An item icon in the current text colour; an own picture as it is. */
export function Icon({ name, size = 18 }: { name: string | null; size?: number }) {
  if (!name)
    return (
      <span
        aria-hidden
        className="inline-block shrink-0 rounded-sm border border-dashed border-line"
        style={{ width: size, height: size }}
      />
    );
  const own = OWN_PICTURE.exec(name);
  if (own)
    return (
      // biome-ignore lint/performance/noImgElement: pictures of the pantry come as they are
      <img
        alt=""
        src={`/api/pantries/${pantryInAddress()}/pictures/${own[1]}`}
        width={size}
        height={size}
        className="inline-block shrink-0 object-contain"
        style={{ width: size, height: size }}
      />
    );
  return <Drawing name={name} size={size} />;
}

/** An icon of the game's set; many of them arrive in one answer. */
function Drawing({ name, size }: { readonly name: string; readonly size: number }) {
  const { icons } = useStore();
  const body = useSyncExternalStore(
    icons.subscribe,
    () => icons.body(name),
    () => "",
  );
  return (
    <svg
      aria-hidden
      viewBox="0 0 512 512"
      width={size}
      height={size}
      className="icon inline-block shrink-0"
      // biome-ignore lint/security/noDangerouslySetInnerHtml: from the icon set that the server serves, never from a pantry
      dangerouslySetInnerHTML={{ __html: body }}
    />
  );
}

/** Rarity as one to five grains of salt: the count tells the rank. */
export function Grains({ rarity }: { rarity: Id | null }) {
  const record = useLivePart(({ catalogue }) => (rarity ? catalogue.records.rarity.get(rarity) : undefined));
  if (!record) return <span className="text-third">–</span>;
  return (
    <span
      role="img"
      aria-label={`${record.name}, ${record.rank} of 5`}
      title={record.name}
      className="inline-flex items-center gap-[2px]"
    >
      {[1, 2, 3, 4, 5].map((n) => (
        <span
          key={n}
          className="inline-block size-[7px] rotate-45 border"
          style={{
            background: n <= record.rank ? record.colour : "transparent",
            borderColor: n <= record.rank ? record.colour : "var(--line)",
          }}
        />
      ))}
    </span>
  );
}

/** The same small label for an item everywhere: lid in the colour of its type, icon, name. */
export function Jar({ id, amount, onOpen }: { id: Id; amount?: string; onOpen?: (id: Id) => void }) {
  const item = useLivePart(({ catalogue }) => catalogue.records.item.get(id));
  const colour = useLivePart(
    ({ catalogue }) => (item?.type && catalogue.records.type.get(item.type)?.colour) || "var(--third)",
  );
  const icon = useLivePart(({ catalogue }) => (item ? held(catalogue, item, "icon").value : null));
  if (!item) return <span className="text-third">(removed)</span>;
  const inside = (
    <>
      {amount && <span className="font-semibold">{amount}</span>}
      <span style={{ color: colour }} className="inline-flex">
        <Icon name={icon} size={15} />
      </span>
      <span className={cx("truncate", item.status === "stub" && "text-beet italic")}>{item.name}</span>
    </>
  );
  const look = "inline-flex h-6 max-w-60 items-center gap-1.5 rounded-sm border border-t-2 border-line bg-salt px-1.5";
  if (!onOpen)
    return (
      <span className={look} style={{ borderTopColor: colour }}>
        {inside}
      </span>
    );
  return (
    <button
      type="button"
      className={cx(look, "hover:border-third")}
      style={{ borderTopColor: colour }}
      onClick={() => onOpen(id)}
    >
      {inside}
    </button>
  );
}

/** What a line names: an item as its jar, or any item with a tag, with those that are. */
export function ThingJar({ of, amount, onOpen }: { of: LineTarget; amount?: string; onOpen?: (id: Id) => void }) {
  if (of.any === undefined) return <Jar id={of.item} amount={amount} onOpen={onOpen} />;
  return <AnyJar tag={of.any} amount={amount} />;
}

export function AnyJar({ tag, amount }: { tag: Id; amount?: string }) {
  const catalogue = useLivePart((live) => live.catalogue);
  const members = [...membersOf(catalogue, tag)].map((i) => i.name);
  const told = `${members.slice(0, 8).join(", ")}${members.length > 8 ? ` and ${members.length - 8} more` : ""}`;
  return (
    <span
      className="inline-flex h-6 max-w-60 items-center gap-1.5 rounded-sm border border-t-2 border-double border-third bg-salt px-1.5"
      title={members.length ? told : "No item has this tag."}
    >
      {amount && <span className="font-semibold">{amount}</span>}
      <span className={cx("truncate", !members.length && "text-beet italic")}>
        any {catalogue.records.tag.get(tag)?.name ?? "(removed)"}
      </span>
    </span>
  );
}
