"use client";
/** Writes a new recipe or rewrites one: the line, what was understood, and the form. */
import { around } from "@/core/catalogue/surroundings";
import { useEffect, useState } from "react";
import type { Recipe } from "@/core/kinds/index";
import { formatRecipe } from "@/core/notation/format";
import { addRecipes, rewriteRecipe } from "@/core/editing/recipes";
import { Button } from "../kit/kit";
import { useCatalogue, useStore } from "../pantry/provider";
import { Chances } from "./chances";
import { LineEditor, useParsed } from "./line-editor";
import { RecipeForm } from "./recipe-form";

interface Props {
  readonly recipe?: Recipe;
  /** What a new line starts with. */
  readonly start?: string;
  readonly form?: boolean;
  readonly onDone?: () => void;
  /** Called with the key of a recipe that was written new. */
  readonly onWritten?: (key: string) => void;
}

export function RecipeEditor({ recipe, start = "", form = false, onDone, onWritten }: Props) {
  const catalogue = useCatalogue();
  const store = useStore();
  const stored = recipe ? formatRecipe(around(catalogue), recipe) : start;
  const [text, setText] = useState(stored);
  const [base, setBase] = useState({ stored, recipe });
  const [saving, setSaving] = useState(false);
  const parsed = useParsed(text);
  const dirty = text !== base.stored;
  // Someone else's change shows at once unless there is something unsaved here.
  useEffect(() => {
    if (stored !== base.stored && (!dirty || text === stored)) {
      setBase({ stored, recipe });
      setText(stored);
    }
  }, [stored, base.stored, dirty, recipe, text]);

  const save = async () => {
    if (!parsed.ok || saving || (recipe && !dirty)) return;
    setSaving(true);
    // Edits are made against what this editor showed, so that a change by someone else in between is a conflict.
    const edits = recipe ? rewriteRecipe(catalogue, base.recipe ?? recipe, parsed) : addRecipes(catalogue, [parsed]);
    const answer = await store.submit(edits);
    setSaving(false);
    if (!answer.ok) return;
    if (!recipe) {
      const added = edits.find((e) => e.op === "add" && e.kind === "recipe");
      setText(start);
      if (added?.op === "add") onWritten?.(added.record.key);
    } else {
      const now = store.snapshot().state?.catalogue;
      const fresh = now?.records.recipe.get(recipe.id);
      if (now && fresh) {
        setBase({ stored: formatRecipe(around(now), fresh), recipe: fresh });
        setText(formatRecipe(around(now), fresh));
      }
    }
    onDone?.();
  };
  const cancel = () => {
    setText(base.stored);
    onDone?.();
  };
  return (
    <div className="space-y-2.5">
      <LineEditor
        label={recipe ? `Line of ${recipe.name}` : "New recipe line"}
        text={text}
        parsed={parsed}
        onText={setText}
        onEnter={() => void save()}
        onEscape={cancel}
        autoFocus={!recipe}
      />
      <div className="flex items-center gap-2">
        <Button
          look="solid"
          disabled={!parsed.ok || saving || (recipe ? !dirty : !text.trim())}
          onClick={() => void save()}
        >
          {recipe ? "Save" : "Add recipe"}
        </Button>
        {(dirty || onDone) && (
          <Button look="quiet" onClick={cancel}>
            {recipe ? "Discard" : "Cancel"}
          </Button>
        )}
        {!parsed.ok && text.trim() !== "" && <span className="text-beet">Not saved while it has errors.</span>}
        {stored !== base.stored && dirty && <span className="text-copper">Someone else changed this recipe.</span>}
      </div>
      {form && <RecipeForm parsed={parsed} onText={setText} />}
      {form && parsed.ok && <Chances parsed={parsed} />}
    </div>
  );
}
