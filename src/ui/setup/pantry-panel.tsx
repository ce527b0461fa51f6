"use client";
/** The settings of the pantry, beside what is done with the whole of it. */
import { CHECK_SETTINGS } from "@/core/checklist";
import { definition } from "@/core/kinds/index";
import { titleOf } from "../grid/field-columns";
import { BundlePanel, ClockButton, DeletePanel } from "./lazily";
import { SettingInput } from "./setting-input";

/** Every setting but the key, which stays, and those of checks, which stand beside them. */
const SETTINGS = Object.entries(definition("pantry").fields)
  .filter(([field]) => field !== "key" && !Object.hasOwn(CHECK_SETTINGS, field))
  .map(([field, of]) => ({ field, label: titleOf(field, of), help: of.options.help, of }));

export function PantryPanel() {
  return (
    // biome-ignore lint/a11y/useSemanticElements: a role after the ARIA pattern, without the looks and limits of the element
    <div
      // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls must be reached by keyboard
      tabIndex={0}
      role="region"
      aria-label="Pantry settings"
      className="grid min-h-0 flex-1 grid-cols-[minmax(0,520px)_minmax(0,1fr)] gap-8 overflow-auto bg-salt p-5"
    >
      <section aria-label="Settings">
        <h2 className="pb-2 text-[15px]">Settings</h2>
        {SETTINGS.map(({ field, label, help, of }) => (
          <div key={field} className="border-b border-hair py-2">
            <div className="flex items-center justify-between gap-4">
              <span className="font-semibold">{label}</span>
              {field === "ticksPerSecond" ? <ClockButton /> : <SettingInput name={field} of={of} />}
            </div>
            {help && <p className="text-second">{help}</p>}
          </div>
        ))}
      </section>
      <div>
        <BundlePanel />
        <DeletePanel />
      </div>
    </div>
  );
}
