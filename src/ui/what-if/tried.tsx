"use client";
/** What a scenario changes: each number with a slider and a field, everything else as a line; and numbers to add. */
import { X } from "lucide-react";
import { Slider } from "radix-ui";
import { type ReactNode, useState } from "react";
import { recordAt } from "@/core/catalogue/catalogue";
import type { Edit } from "@/core/catalogue/edit";
import { around, namesOf } from "@/core/catalogue/surroundings";
import { type Kind, kindWord } from "@/core/kinds/index";
import type { Id } from "@/core/schema/id";
import { tidy } from "@/core/numbers/tidy";
import { type Authored, atSlider, movedTo, numbersOf, shareOf, sliderOf, withNumber } from "@/core/what-if/numbers";
import { rebased } from "@/core/what-if/scenario";
import { titleOf, type Tried, type TriedTogether, triedIn } from "@/core/what-if/touched";
import { FieldInput, NumberInput } from "../forms/field-input";
import { Button } from "../kit/kit";
import { NameInput } from "../kit/name-input";
import { useBase, useCatalogue, useStore } from "../pantry/provider";
import type { OpenScenario } from "../pantry/store";

const nameOfNumber = ({ kind, id, path, within }: Authored): string => [kind, id, path, ...within].join(" ");

export function TriedPanel({ scenario }: { readonly scenario: OpenScenario }) {
  const store = useStore();
  const { catalogue: base } = useBase();
  const catalogue = useCatalogue();
  /** Numbers that were chosen to be moved, whether they are moved yet or not. */
  const [watched, setWatched] = useState<readonly Authored[]>([]);
  const { edits, unfit } = scenario;
  const fitting = unfit.length ? edits.filter((e) => !unfit.some((u) => u.edit === e)) : edits;
  const tried = triedIn(base, catalogue, fitting);
  const moved = new Set(tried.flatMap((t) => (t.is === "number" ? [nameOfNumber(t.of)] : [])));
  // One list, so that a slider stays the same one when its number is moved for the first time.
  const rows: readonly Tried[] = [
    ...tried,
    ...watched.filter((w) => !moved.has(nameOfNumber(w))).map((of): Tried => ({ is: "number", of, before: of.value })),
  ];
  const drop = (gone: readonly Edit[]) => store.tryInstead(edits.filter((e) => !gone.includes(e)));
  const set = (of: Authored, value: number) => store.tryMoved([withNumber(catalogue, of, value)], nameOfNumber(of));
  const putBack = (of: Authored, before: number) => {
    setWatched(watched.filter((w) => nameOfNumber(w) !== nameOfNumber(of)));
    if (before !== of.value) set(of, before);
  };
  return (
    <section
      aria-label="Edits"
      // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls must be reached by keyboard
      tabIndex={0}
      className="w-96 shrink-0 space-y-3 overflow-auto border-r border-line bg-shade p-3.5"
    >
      {unfit.map(({ edit, message, conflict }, k) => (
        <div key={k} role="alert" className="border-l-3 border-beet bg-salt px-2 py-1">
          <p>{message}</p>
          <span className="flex gap-1.5 pt-1">
            {conflict && (
              <Button
                onClick={() => store.tryInstead(edits.map((e) => (e === edit ? rebased(e, conflict.theirs) : e)))}
              >
                Keep the scenario's value
              </Button>
            )}
            <Button onClick={() => drop([edit])}>Drop this edit</Button>
          </span>
        </div>
      ))}
      {rows.map((each) =>
        each.is === "number" ? (
          <NumberRow
            key={nameOfNumber(each.of)}
            of={each.of}
            before={each.before}
            onValue={(value) => set(each.of, value)}
            onDrop={() => putBack(each.of, each.before)}
          />
        ) : each.is === "together" ? (
          <TogetherRow
            key={each.title}
            of={each}
            onFactor={(factor) => store.tryMoved(scaled(each, factor), each.title)}
            onDrop={() => drop(each.edits)}
          />
        ) : (
          <div key={JSON.stringify(each.edits)} className="flex items-start gap-2">
            <span className="min-w-0 flex-1">{each.title}</span>
            <DropButton label={each.title} onDrop={() => drop(each.edits)} />
          </div>
        ),
      )}
      <AddNumber onAdd={(of) => setWatched([...watched.filter((w) => nameOfNumber(w) !== nameOfNumber(of)), of])} />
    </section>
  );
}

/** Edits that bring those of a group to another factor of what stands in the pantry. */
const scaled = ({ edits }: TriedTogether, factor: number): Edit[] =>
  edits.map((e) => ({ ...e, from: e.to, to: tidy((e.from as number) * factor) }));

function DropButton({ label, onDrop }: { readonly label: string; readonly onDrop: () => void }) {
  return (
    <Button look="quiet" className="px-1!" aria-label={`Drop: ${label}`} title="Drop this edit" onClick={onDrop}>
      <X size={14} aria-hidden />
    </Button>
  );
}

/** Steps of a slider from one end to the other. */
const STEPS = 200;

function NumberRow({
  of,
  before,
  onValue,
  onDrop,
}: {
  readonly of: Authored;
  readonly before: number;
  readonly onValue: (value: number) => void;
  readonly onDrop: () => void;
}) {
  const here = around(useCatalogue());
  const title = titleOf(useCatalogue(), of);
  const range = sliderOf({ value: before, bounds: of.bounds });
  const say = (value: number) => of.field.format(value, here) || String(value);
  return (
    <SliderRow
      title={title}
      beside={<span title="In the pantry">{say(before)}</span>}
      text={say(of.value)}
      share={shareOf(of.value, range)}
      onShare={(share) => onValue(movedTo(of, share, range))}
      onDrop={onDrop}
    >
      <FieldInput
        narrow
        label={`${title}: value to try`}
        className="num"
        field={of.field}
        value={of.value}
        onDone={(value) => typeof value === "number" && onValue(value)}
      />
    </SliderRow>
  );
}

const FACTORS = { min: 0.1, max: 10 };
function TogetherRow({
  of: { title, factor },
  onFactor,
  onDrop,
}: {
  readonly of: TriedTogether;
  readonly onFactor: (factor: number) => void;
  readonly onDrop: () => void;
}) {
  return (
    <SliderRow
      title={title}
      beside="times"
      text={`times ${factor}`}
      share={shareOf(factor, FACTORS)}
      onShare={(share) => onFactor(atSlider(share, FACTORS))}
      onDrop={onDrop}
    >
      <NumberInput
        narrow
        label={`${title}: factor`}
        className="num"
        value={tidy(Number(factor.toPrecision(6)))}
        rules={{ min: 0, max: 1000 }}
        onDone={(value) => value !== null && value > 0 && onFactor(value)}
      />
    </SliderRow>
  );
}

/** What is moved, with what it is moved from, a slider and a field. */
function SliderRow({
  title,
  beside,
  text,
  share,
  onShare,
  onDrop,
  children,
}: {
  readonly title: string;
  readonly beside: ReactNode;
  /** The value in words, for those who hear it. */
  readonly text: string;
  /** Where it stands between the ends, from 0 to 1. */
  readonly share: number;
  readonly onShare: (share: number) => void;
  readonly onDrop: () => void;
  readonly children: ReactNode;
}) {
  return (
    <div>
      <div className="flex items-center gap-2">
        <span className="min-w-0 flex-1">{title}</span>
        <DropButton label={title} onDrop={onDrop} />
      </div>
      <div className="flex items-center gap-2.5">
        <span className="w-14 shrink-0 text-right text-second">{beside}</span>
        <Slider.Root
          className="relative flex h-6 min-w-0 flex-1 touch-none items-center select-none"
          min={0}
          max={STEPS}
          step={1}
          value={[Math.round(share * STEPS)]}
          onValueChange={([at]) => onShare(at / STEPS)}
        >
          <Slider.Track className="relative h-1 flex-1 rounded-full bg-line">
            <Slider.Range className="absolute h-full rounded-full bg-copper" />
          </Slider.Track>
          <Slider.Thumb
            aria-label={title}
            aria-valuetext={text}
            className="block size-4 rounded-full border-2 border-copper bg-salt focus-visible:outline-2 focus-visible:outline-offset-2"
          />
        </Slider.Root>
        <span className="w-20 shrink-0">{children}</span>
      </div>
    </div>
  );
}

/** Kinds whose numbers can be chosen here, in the order of work. */
const CHOSEN: readonly Kind[] = ["item", "recipe", "source", "stat", "type", "table", "currency"];

/** First whose number, then which of its numbers. */
function AddNumber({ onAdd }: { readonly onAdd: (of: Authored) => void }) {
  const catalogue = useCatalogue();
  const [kind, setKind] = useState<Kind>("item");
  const [id, setId] = useState<Id | null>(null);
  const record = id === null ? undefined : recordAt(catalogue, kind, id);
  const numbers = record ? numbersOf(catalogue, kind, record.id) : [];
  const choose = (name: string) => {
    const found = namesOf(catalogue, kind).find(name);
    if (found.found === "one") {
      setId(found.id);
      return null;
    }
    return found.found === "none"
      ? `There is no ${kindWord(kind)} called “${name}”.`
      : `${found.keys.length} are called “${name}”. Enter the key of one: ${found.keys.join(", ")}.`;
  };
  return (
    <section aria-label="Try a number" className="border-t border-line pt-3">
      <h2 className="head pb-1">Try a number</h2>
      <div className="flex items-start gap-1.5">
        <select
          aria-label="Kind of record"
          className="field w-28!"
          value={kind}
          onChange={(e) => {
            setKind(e.target.value as Kind);
            setId(null);
          }}
        >
          {CHOSEN.map((each) => (
            <option key={each} value={each}>
              {kindWord(each)}
            </option>
          ))}
        </select>
        <NameInput
          key={`${kind} ${id}`}
          label="Record whose number is tried"
          value={record?.name ?? ""}
          names={[...namesOf(catalogue, kind).names()]}
          placeholder="name"
          onDone={choose}
        />
      </div>
      {record && !numbers.length && <p className="pt-1 text-second">{record.name} has no numbers.</p>}
      {numbers.length > 0 && (
        <ul className="flex flex-wrap gap-1.5 pt-2">
          {numbers.map((of) => (
            <li key={nameOfNumber(of)}>
              <Button onClick={() => onAdd(of)}>
                {of.label}{" "}
                <span className="num text-second">{of.field.format(of.value, around(catalogue)) || of.value}</span>
              </Button>
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}
