"use client";
/** Parts of the setup of a test: the second character, chances, a draft of a use. */
import { around } from "@/core/catalogue/surroundings";
import type { Use } from "@/core/kinds/index";
import { formatUse } from "@/core/notation/use-line";
import { usePlaces } from "../frame/navigate";
import { Button } from "../kit/kit";
import { useLive } from "../pantry/provider";
import { LineInput, USE_NAMES } from "../uses/line-input";
import { LineFaults } from "../uses/uses-section";
import { Choice, Labelled, NumberInput } from "./parts";

export function SecondCharacter({ other, is }: { readonly other: string | null; readonly is: "ally" | "foe" }) {
  const places = usePlaces();
  return (
    <div className="grid grid-cols-[1fr_84px] gap-2">
      <Choice
        kind="subject"
        label="Second character"
        value={other ?? ""}
        none="None"
        onPick={(key) => places.ask({ with: key || null }, true)}
      />
      <Labelled label="Role">
        <select
          aria-label="Role"
          className="field"
          value={is}
          disabled={!other}
          onChange={(e) => places.ask({ as: e.target.value === "foe" ? "foe" : null }, true)}
        >
          <option>ally</option>
          <option>foe</option>
        </select>
      </Labelled>
    </div>
  );
}

export function ChancesChoice({ bands, seed }: { readonly bands: boolean; readonly seed: number }) {
  const places = usePlaces();
  return (
    <div className="grid grid-cols-[1fr_84px] gap-2">
      <Labelled label="Chances">
        <select
          aria-label="Chances"
          className="field"
          value={bands ? "many" : "one"}
          onChange={(e) => places.ask({ runs: e.target.value === "many" ? "many" : null }, true)}
        >
          <option value="one">one run</option>
          <option value="many">mean and band of 200 runs</option>
        </select>
      </Labelled>
      <Labelled label="Seed">
        <NumberInput
          label="Seed"
          value={seed}
          least={1}
          most={2 ** 31 - 1}
          whole
          onDone={(n) => places.ask({ seed: String(n) }, true)}
        />
      </Labelled>
    </div>
  );
}

interface DraftProps {
  readonly name: string;
  readonly use: Use;
  /** null: nothing is tried. */
  readonly draft: string | null;
  readonly onDraft: (line: string | null) => void;
}

/** Other values of a use, tried without being saved. */
export function DraftOfUse({ name, use, draft, onDraft }: DraftProps) {
  const { catalogue } = useLive();
  return (
    <div>
      <div className="flex items-center justify-between">
        <h2 className="head">Draft of {name}, not saved</h2>
        {draft === null ? (
          <Button look="quiet" onClick={() => onDraft(formatUse(use as never, around(catalogue)))}>
            Try other values
          </Button>
        ) : (
          <Button look="quiet" onClick={() => onDraft(null)}>
            Discard
          </Button>
        )}
      </div>
      {draft !== null && (
        <>
          <LineInput
            {...USE_NAMES}
            label="Draft of the use"
            text={draft}
            onText={onDraft}
            onWrite={() => undefined}
            onEscape={() => onDraft(null)}
          />
          <LineFaults line={draft} onOffer={onDraft} />
        </>
      )}
    </div>
  );
}
