"use client";
/** The work in its order, each step with whether it is done; the first that is not is the next. */
import { Check } from "lucide-react";
import { Button, cx } from "../kit/kit";
import { useLive } from "../pantry/provider";
import { type WorkStep, stepsOf } from "./steps";
import { usePlaces } from "./navigate";

export function NextSteps({ onGo }: { readonly onGo?: () => void }) {
  const { catalogue, model, judged } = useLive();
  const places = usePlaces();
  const steps = stepsOf(catalogue, model, judged.open);
  const next = steps.find((step) => !step.done);
  const go = ({ view, query }: WorkStep) => {
    onGo?.();
    places.go(view, query);
  };
  return (
    <section aria-label="Next steps" className="text-left">
      <h3 className="head pb-1">Next steps</h3>
      <ol className="divide-y divide-hair rounded-sm border border-line">
        {steps.map((step, k) => (
          <li key={step.title} className={cx("flex items-center gap-3 px-3 py-1.5", step === next && "bg-pick")}>
            <span
              aria-hidden
              className={cx(
                "grid size-5 shrink-0 place-items-center rounded-full border text-[12px]",
                step.done ? "border-kelp text-kelp" : "border-line text-second",
              )}
            >
              {step.done ? <Check size={12} /> : k + 1}
            </span>
            <span className="min-w-0 flex-1">
              <span className="font-semibold">{step.title}</span>
              <span className="sr-only">{step.done ? ", done" : ", not done yet"}</span>
              <span className="block text-second">{step.message}</span>
            </span>
            <Button look={step === next ? "solid" : "plain"} onClick={() => go(step)}>
              {step.action}
            </Button>
          </li>
        ))}
      </ol>
    </section>
  );
}
