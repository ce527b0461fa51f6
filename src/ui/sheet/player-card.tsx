"use client";
/** The item as players see it, by day and by night; beside a second one, what is better and what is worse. */
import { useState } from "react";
import { cardLines, compareCards } from "@/core/cards/card";
import { usesInWords } from "@/core/cards/use-words";
import { held, soldFor } from "@/core/catalogue/inheritance";
import { namesOf } from "@/core/catalogue/surroundings";
import type { Item } from "@/core/kinds/index";
import { madeVisible } from "@/core/numbers/contrast";
import { sayCost } from "@/core/numbers/format";
import { Grains, Icon } from "../kit/jars";
import { Button, cx } from "../kit/kit";
import { NameInput } from "../kit/name-input";
import { DialogFrame, Scrolled } from "../kit/dialog-frame";
import { useLive } from "../pantry/provider";
import { Described } from "./described";

export function CardButton({ item }: { readonly item: Item }) {
  const [open, setOpen] = useState(false);
  return (
    <>
      <Button look="quiet" onClick={() => setOpen(true)}>
        Player's card
      </Button>
      {open && <Cards item={item} onClose={() => setOpen(false)} />}
    </>
  );
}

function Cards({ item, onClose }: { readonly item: Item; readonly onClose: () => void }) {
  const { catalogue } = useLive();
  const [name, setName] = useState("");
  const names = namesOf(catalogue, "item");
  const found = name ? names.find(name) : null;
  const other = found?.found === "one" ? catalogue.records.item.get(found.id) : undefined;
  const compared = other ? compareCards(catalogue, item, other) : [];
  return (
    <DialogFrame
      width="wide"
      title={`${item.name} as players see it`}
      description="Everything marked “shown to players”, in both themes."
      onClose={onClose}
      head={
        <div className="flex items-center gap-3 pt-3">
          <span className="text-second">Compare with</span>
          <div className="w-64">
            <NameInput
              label="Item to compare"
              value={name}
              names={[...names.names()].filter((n) => n !== item.name)}
              placeholder="Name of an item"
              onDone={setName}
            />
          </div>
          {name && !other && (
            <span role="alert" className="text-beet">
              There is no single item called “{name}”.
            </span>
          )}
        </div>
      }
      foot={
        <Button look="quiet" onClick={onClose}>
          Close
        </Button>
      }
    >
      <Scrolled label="Cards" className="flex flex-wrap items-start gap-4 py-4">
        {(["day", "night"] as const).map((ground) => (
          <div key={ground} className="flex gap-3">
            <Card item={item} ground={ground} />
            {other && <Card item={other} ground={ground} />}
          </div>
        ))}
        {other && (
          <table className="min-w-64 flex-1">
            <thead>
              <tr className="text-left">
                <th className="head py-1">Stat</th>
                <th className="head text-right">{item.name}</th>
                <th className="head text-right">{other.name}</th>
                <th className="head pl-4">Difference</th>
              </tr>
            </thead>
            <tbody>
              {compared.map((line) => (
                <tr key={line.label} className="border-t border-hair">
                  <td className="py-1">{line.label}</td>
                  <td className="text-right">{line.here}</td>
                  <td className="text-right">{line.beside}</td>
                  <td
                    className={cx(
                      "pl-4 font-semibold",
                      line.verdict === "better" && "text-kelp",
                      line.verdict === "worse" && "text-beet",
                    )}
                  >
                    {line.delta ? `${line.delta > 0 ? "+" : "−"}${Math.abs(line.delta)} ` : ""}
                    {line.verdict}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        )}
      </Scrolled>
    </DialogFrame>
  );
}

const NIGHT = "#11252b";

/** @param ground  that of the page where none is said */
export function Card({ item, ground }: { readonly item: Item; readonly ground?: "day" | "night" }) {
  const { catalogue } = useLive();
  const type = item.type ? catalogue.records.type.get(item.type) : undefined;
  // What is dark on paper can't be told by night.
  const colour = type && (ground === "night" ? madeVisible(type.colour, [NIGHT], 3) : type.colour);
  const lines = cardLines(catalogue, item);
  const price = soldFor(catalogue, item);
  return (
    <article
      aria-label={ground ? `${item.name}, by ${ground}` : item.name}
      data-theme={ground}
      className="w-60 rounded-sm border border-t-4 border-line bg-salt p-3 text-ink"
      style={{ borderTopColor: colour }}
    >
      <div className="flex items-center gap-2.5">
        <span className="inline-flex" style={{ color: colour }}>
          <Icon name={held(catalogue, item, "icon").value} size={34} />
        </span>
        <div className="min-w-0">
          <h3 className="truncate text-[16px]">{item.name}</h3>
          <p className="flex items-center gap-2 text-second">
            {type?.name} <Grains rarity={item.rarity} />
          </p>
        </div>
      </div>
      {lines.length > 0 && (
        <dl className="mt-2 border-t border-hair pt-1.5">
          {lines.map((line) => (
            <div key={line.label} className="flex justify-between gap-3">
              <dt className="text-second">{line.label}</dt>
              <dd className="text-right font-semibold">{line.text}</dd>
            </div>
          ))}
        </dl>
      )}
      {usesInWords(catalogue, item).map((use) => (
        <p key={use.name} className="mt-2 border-t border-hair pt-1.5">
          <b>{use.name}.</b> {use.sentences.join(" ")}
        </p>
      ))}
      {item.description && (
        <div className="mt-2 border-t border-hair pt-1.5">
          <Described item={item} />
        </div>
      )}
      {price !== null && <p className="mt-2 text-right text-second">sells for {sayCost(price)}</p>}
    </article>
  );
}
