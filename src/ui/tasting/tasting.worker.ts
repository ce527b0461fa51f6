/** Runs tastings and rolls beside the page. */
import { unpacked } from "@/core/catalogue/catalogue";
import { oddsOf, rolls } from "@/core/trials/opening";
import { runTrial } from "@/core/trials/run";
import { taste } from "@/core/trials/tasting";
import type { Task, WorkerAnswer } from "./work";

const tell = (told: WorkerAnswer) => postMessage(told);
addEventListener("message", ({ data }: MessageEvent<Task>) => {
  try {
    if (data.is === "roll") {
      const progress = (done: number) => {
        tell({ is: "progress", done, of: data.times });
        return true;
      };
      tell({
        is: "rolled",
        rolled: rolls(data.box, new Map(data.tables), data.level, data.times, data.seed, progress),
      });
      return;
    }
    if (data.is === "odds") {
      tell({ is: "odds", odds: oddsOf(data.box, new Map(data.tables), data.level, data.wanted) });
      return;
    }
    if (data.is === "trial") {
      const catalogue = unpacked(data.packed);
      const trial = catalogue.records.trial.get(data.trial);
      if (!trial) throw new Error("This trial no longer exists.");
      const { play: _, ...run } = runTrial(catalogue, trial);
      tell({ is: "ran", run });
      return;
    }
    const report = taste(unpacked(data.packed), data.request, (done, of) => {
      tell({ is: "progress", done, of });
      return true;
    });
    tell({ is: "tasted", report });
  } catch (thrown) {
    tell({ is: "failed", message: (thrown as Error).message });
  }
});
