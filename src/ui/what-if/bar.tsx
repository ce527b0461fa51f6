"use client";
/** Above every view while a scenario is open: what is looked through, what it changes, and the way out. */
import { FlaskConical } from "lucide-react";
import { useState } from "react";
import { nameOf } from "@/core/catalogue/catalogue";
import { sayMoved } from "@/core/history/say-moved";
import { count } from "@/core/numbers/format";
import { same } from "@/core/schema/json";
import { LONGEST_NAME } from "@/core/schema/limits";
import { usePlaces } from "../frame/navigate";
import { Button } from "../kit/kit";
import { Popup } from "../kit/popup";
import { useBase, useStore } from "../pantry/provider";
import type { OpenScenario } from "../pantry/store";

export function OpenScenarioBar({ scenario }: { readonly scenario: OpenScenario }) {
  const store = useStore();
  const places = usePlaces();
  const { catalogue } = useBase();
  const { edits, effects, current, stopped, unfit, name } = scenario;
  const words = stopped
    ? stopped
    : !edits.length
      ? "Changes you make now are only tried. Edit any value, here or in any other view."
      : effects && current
        ? sayMoved(effects.moved, (id) => nameOf(catalogue, "item", id)).join(", ")
        : "Computing the effects.";
  return (
    <section
      aria-label="Scenario"
      className="flex min-h-9 shrink-0 items-center gap-2 border-b border-line bg-copper-wash px-3.5 py-1 print:hidden"
    >
      <FlaskConical size={15} aria-hidden className="shrink-0 text-copper" />
      <b className="max-w-52 truncate text-copper">{name || "What if"}</b>
      <span className="whitespace-nowrap">{count(edits.length, "edit")}</span>
      <span role="status" className="min-w-0 flex-1 truncate text-second">
        {words}
      </span>
      {unfit.length > 0 && (
        <span className="font-semibold whitespace-nowrap text-beet">{count(unfit.length, "conflict")}</span>
      )}
      {!(places.view === "costs" && places.query.get("view") === "what-if") && (
        <Button onClick={() => places.go("costs", { view: "what-if" })}>Details</Button>
      )}
      <SaveScenario scenario={scenario} />
      <Button
        disabled={!edits.length || unfit.length > 0}
        title={unfit.length ? "Update or drop the conflicting edits first" : "Make these changes in the pantry, as one"}
        onClick={() => void store.applyScenario()}
      >
        Apply
      </Button>
      <Button onClick={store.leaveScenario} title="Leave the scenario (F8)">
        Leave <kbd className="text-second">F8</kbd>
      </Button>
    </section>
  );
}

function SaveScenario({ scenario: { edits, name, saved } }: { readonly scenario: OpenScenario }) {
  const store = useStore();
  const [typed, setTyped] = useState<string | null>(null);
  const isSaved = saved !== null && same(saved, edits);
  const save = async (called: string) => {
    if (!called) return;
    const answer = await store.saveScenario(called);
    if (answer.ok) setTyped(null);
  };
  if (saved !== null)
    return (
      <Button disabled={isSaved} onClick={() => void save(name)}>
        {isSaved ? "Saved" : "Save changes"}
      </Button>
    );
  return (
    <Popup
      open={typed !== null}
      onOpen={(open) => setTyped(open ? name : null)}
      button={(opener) => (
        <Button {...opener} disabled={!edits.length}>
          Save as…
        </Button>
      )}
      align="end"
      label="Save scenario"
      className="w-72"
    >
      <p className="pb-2 text-second">Everyone can open it. The pantry itself stays as it is.</p>
      <form
        className="flex gap-1.5"
        onSubmit={(e) => {
          e.preventDefault();
          void save((typed ?? "").trim());
        }}
      >
        <input
          aria-label="Name of the scenario"
          // biome-ignore lint/a11y/noAutofocus: the panel opens to be typed into
          autoFocus
          className="field min-w-0 flex-1"
          maxLength={LONGEST_NAME}
          placeholder="Dearer salt"
          value={typed ?? ""}
          onChange={(e) => setTyped(e.target.value)}
        />
        <Button look="solid" type="submit" disabled={!typed?.trim()}>
          Save
        </Button>
      </form>
    </Popup>
  );
}
