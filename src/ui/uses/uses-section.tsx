"use client";
/** What an item or type does when it is used: each use as its line, in its ink, with what a player reads of it. */
import { useMemo, useState } from "react";
import { restoredBy, sharedWait, useInWords as inWords } from "@/core/cards/use-words";
import type { Heir } from "@/core/catalogue/inheritance";
import { around } from "@/core/catalogue/surroundings";
import { type HeldUse, LEFT, readyIn, saidIn, usesOf } from "@/core/catalogue/uses";
import { addUse, overrideUse, readUseLine, rewriteUse } from "@/core/editing/uses";
import { formatUse } from "@/core/notation/use-line";
import type { Item } from "@/core/kinds/index";
import { definition, kindWord } from "@/core/kinds/index";
import { list, sayQuantity } from "@/core/numbers/format";
import { pathOf } from "@/core/schema/record";
import { labelOf } from "../grid/field-columns";
import { Button, cx } from "../kit/kit";
import { figuresOf, useLive, useStore } from "../pantry/provider";
import { usePlaces } from "../frame/navigate";
import { Section } from "../sheet/section";
import { LineInput, USE_NAMES } from "./line-input";

/** What is wrong with a line, with the texts that would fit. */
export function LineFaults({
  line,
  onOffer,
  onCreate,
}: {
  readonly line: string;
  readonly onOffer: (line: string) => void;
  /** Writes the line together with the records that it names for the first time. */
  readonly onCreate?: () => void;
}) {
  const { catalogue } = useLive();
  const { use, issues } = useMemo(() => readUseLine(catalogue, line), [catalogue, line]);
  const created = useMemo(() => (use === null ? readUseLine(catalogue, line, true) : null), [catalogue, line, use]);
  if (!line.trim()) return <Examples line="" onOffer={onOffer} />;
  const made = created?.use
    ? created.made.flatMap((e) => (e.op === "add" ? [`${kindWord(e.kind)} ${e.record.name}`] : []))
    : [];
  return (
    <>
      {use && <Examples line={line} onOffer={onOffer} />}
      {onCreate && made.length > 0 && (
        <Button className="mt-1" onClick={onCreate}>
          Create {list(made, 3)}
        </Button>
      )}
      <ul className="mt-1 space-y-0.5">
        {issues.slice(0, 6).map((i) => (
          <li
            key={`${i.from}${i.message}`}
            className={cx("text-[12px]", i.severity === "error" ? "text-beet" : "text-copper")}
          >
            <code className="rounded-sm bg-shade px-1">{line.slice(i.from, i.to) || "end"}</code> {i.message}{" "}
            {i.suggestions.slice(0, 3).map((by) => (
              <button
                key={by}
                type="button"
                className="mr-1 underline"
                onClick={() => onOffer(`${line.slice(0, i.from)}${by}${line.slice(i.to)}`)}
              >
                {by}
              </button>
            ))}
          </li>
        ))}
      </ul>
    </>
  );
}

/** Clauses that can be added, with the pantry's own names. */
function Examples({ line, onOffer }: { readonly line: string; readonly onOffer: (line: string) => void }) {
  const { catalogue } = useLive();
  const first = (kind: "resource" | "condition") => catalogue.records[kind].values().next().value?.name;
  const [resource, condition] = [first("resource"), first("condition")];
  const clauses = [
    ...(resource ? [`restores 10 ${resource}`] : []),
    ...(condition ? [`${condition} 30s`] : []),
    "cooldown 20s",
    "used up",
  ].filter((clause) => !line.includes(clause.split(" ")[0]));
  if (!clauses.length) return null;
  const add = (clause: string) =>
    onOffer(
      !line.trim() ? `Use: ${clause}` : /[:,]\s*$/.test(line) ? `${line.trimEnd()} ${clause}` : `${line}, ${clause}`,
    );
  return (
    <p className="mt-1 text-[12px] text-second">
      Add:{" "}
      {clauses.map((clause) => (
        <button key={clause} type="button" className="mr-2 underline" onClick={() => add(clause)}>
          {clause}
        </button>
      ))}
    </p>
  );
}

/** A line that is typed, with its faults; Enter writes it, Escape puts back what stood. */
export function UseLine({
  label,
  stored,
  onWrite,
  onCancel,
  autoFocus,
}: {
  readonly label: string;
  readonly stored: string;
  /**
   * @param create  with the records that it names for the first time
   * @returns whether it was written
   */
  readonly onWrite: (line: string, create?: boolean) => Promise<boolean>;
  readonly onCancel?: () => void;
  readonly autoFocus?: boolean;
}) {
  const [typed, setTyped] = useState<string | null>(null);
  const text = typed ?? stored;
  const dirty = typed !== null && typed !== stored;
  const write = async (create = false) => {
    if (await onWrite(text, create)) setTyped(null);
  };
  return (
    <div>
      <LineInput
        {...USE_NAMES}
        label={label}
        text={text}
        onText={setTyped}
        autoFocus={autoFocus}
        placeholder="Eat: restores 42 Vigour, Warm 30s, cooldown 20s, used up"
        onWrite={() => void write()}
        onEscape={() => {
          setTyped(null);
          onCancel?.();
        }}
      />
      {(dirty || autoFocus) && (
        <>
          <LineFaults line={text} onOffer={setTyped} onCreate={() => void write(true)} />
          <div className="mt-1 flex gap-1.5">
            <Button look="solid" onClick={() => void write()}>
              Save
            </Button>
            <Button
              look="quiet"
              onClick={() => {
                setTyped(null);
                onCancel?.();
              }}
            >
              Discard
            </Button>
          </div>
        </>
      )}
    </div>
  );
}

export function UsesSection({ owner }: { readonly owner: Heir }) {
  const { catalogue } = useLive();
  const store = useStore();
  const [adding, setAdding] = useState(false);
  const uses = usesOf(catalogue, owner, true);
  const add = async (line: string, create = false) => {
    const made = addUse(catalogue, owner, line, { create });
    if (!made) return false;
    const answer = await store.submit([...made.edits]);
    if (answer.ok) setAdding(false);
    return answer.ok;
  };
  return (
    <Section
      title="When used"
      action={
        <Button look="quiet" onClick={() => setAdding(true)}>
          Add use
        </Button>
      }
    >
      {uses.length === 0 && !adding && (
        <p className="text-second">No uses yet. Such as Eat: restores 42 Vigour, used up.</p>
      )}
      <div className="space-y-3">
        {uses.map((use) => (
          <OneUse key={use.use.id} owner={owner} use={use} />
        ))}
      </div>
      {adding && (
        <div className="pt-2">
          <UseLine label="New use" stored="" onWrite={add} onCancel={() => setAdding(false)} autoFocus />
        </div>
      )}
    </Section>
  );
}

function OneUse({ owner, use }: { readonly owner: Heir; readonly use: HeldUse }) {
  const { catalogue, model } = useLive();
  const store = useStore();
  const places = usePlaces();
  const stored = formatUse(use.use as never, around(catalogue));
  const [base] = use.chain.slice(-1);
  const varied = !use.inherited && use.use.varies !== null;
  const whole = formatUse({ ...(use.use as object), ...resolved(use) } as never, around(catalogue));
  const write = async (line: string, create = false): Promise<boolean> => {
    const edits = rewriteUse(catalogue, use.use, line, create);
    if (!edits) return false;
    return edits.length === 0 || (await store.submit(edits)).ok;
  };
  const item = "parent" in owner ? null : (owner as Item);
  // What is left of it comes back.
  const left = use.leaves === null || use.fate === "kept" ? 0 : (figuresOf(model, use.leaves).value ?? 0);
  const each = item ? Math.max(0, (figuresOf(model, item.id).value ?? 0) - left) : 0;
  const cost = each * (use.fate === "worn" ? 1 / use.count : use.count);
  const minutes = (readyIn(catalogue, use) + use.windup) / catalogue.pantry.ticksPerSecond / 60;
  const worth = (item ? restoredBy(catalogue, item, use) : []).flatMap(({ resource, points }) => {
    const name = catalogue.records.resource.get(resource)?.name ?? "";
    const per = [
      cost > 0 && use.fate !== "kept" ? `${sayQuantity(Math.round((points / cost) * 100) / 100)} per value unit` : null,
      minutes > 0 ? `${sayQuantity(Math.round((points / minutes) * 100) / 100)} per minute` : null,
    ];
    return per.some(Boolean) ? [`${name}: ${per.filter(Boolean).join(", ")}`] : [];
  });
  const words = "parent" in owner ? null : inWords(catalogue, owner as Item, use);
  const shared = sharedWait(catalogue, use);
  const kept = varied
    ? LEFT.flatMap((field) => {
        const said = saidIn(use.chain, field);
        const at = pathOf(definition("use"), field) ?? { field: definition("use").fields[field] };
        return said && said.by !== use.use ? [labelOf(field, at.field as never)] : [];
      })
    : [];
  return (
    <div className={cx("border-l-2 pl-2.5", use.inherited ? "border-dotted border-third" : "border-kelp")}>
      <div className="flex items-center gap-2">
        <span
          className={cx("font-semibold", use.use.off && "text-third line-through", use.inherited && "ink-inherited")}
        >
          {use.name}
        </span>
        {(use.inherited || varied) && base.type && (
          <button
            type="button"
            className="text-[12px] text-second hover:underline"
            onClick={() => places.open("type", base.type as never)}
          >
            {use.inherited ? "from" : "over"} {catalogue.records.type.get(base.type)?.name}
          </button>
        )}
        <span className="ml-auto flex">
          {use.inherited ? (
            <>
              <Button
                look="quiet"
                className="px-1.5!"
                onClick={() => void store.submit(overrideUse(catalogue, owner, use.use))}
              >
                Override
              </Button>
              <Button
                look="quiet"
                className="px-1.5!"
                onClick={() => void store.submit(overrideUse(catalogue, owner, use.use, true))}
              >
                Remove here
              </Button>
            </>
          ) : (
            <>
              <Button look="quiet" className="px-1.5!" onClick={() => places.open("use", use.use.id)}>
                Form
              </Button>
              <Button
                look="quiet"
                className="px-1.5!"
                onClick={() => void store.submit([{ op: "remove", kind: "use", record: use.use }])}
              >
                {varied ? "Reset to inherited" : "Remove"}
              </Button>
            </>
          )}
        </span>
      </div>
      {use.use.off ? (
        <p className="text-second">Removed here: the item does not have this use of its type.</p>
      ) : use.inherited ? (
        <p className="ink-inherited">{whole}</p>
      ) : (
        <UseLine label={`Line of ${use.name}`} stored={stored} onWrite={write} />
      )}
      {kept.length > 0 && !use.use.off && (
        <p className="text-[12px] text-second">
          Reset to inherited: <span className="ink-inherited">{kept.join(", ")}</span>
        </p>
      )}
      {words && words.length > 0 && !use.use.off && (
        <p className="mt-0.5 text-[12px] text-second">
          {words.join(" ")} <span className="ink-worked">{worth.join("; ")}</span>
        </p>
      )}
      {shared && !use.use.off && <p className="text-[12px] text-second">{shared}</p>}
    </div>
  );
}

/** What a use comes to with what it varies, for its line. */
function resolved(use: HeldUse): object {
  return Object.fromEntries(
    LEFT.flatMap((field) => {
      const said = saidIn(use.chain, field);
      return said ? [[field, said.value]] : [];
    }),
  );
}
