/** Writes into a pantry of the database without an engine: the lock on it keeps everyone else out meanwhile. */
import type { EntityManager } from "@mikro-orm/postgresql";
import { type Catalogue, emptyCatalogue } from "../core/catalogue/catalogue";
import type { Pantry } from "../core/kinds/index";
import type { Id } from "../core/schema/id";
import { strangeIcons } from "../server/use-cases/icons";
import { type Intent, readied, type Readied } from "../server/use-cases/intents";
import type { Patience, Submitted, Writer } from "../server/use-cases/writing";
import { commit, PantryGone, type Submission } from "../store/commit";
import { loadCatalogue } from "../store/load";
import type { Orm } from "../store/orm";
import { type Made, type Write, writesOf } from "../store/prepare";

export class LocalWriter implements Writer {
  revision = 0;

  /** @param fresh  settings of a pantry that is not there yet: it is made together with its first change, or not at all */
  constructor(
    private readonly orm: Orm,
    private readonly pantry: Id,
    private readonly fresh?: Pantry,
  ) {}

  private async read(em: EntityManager): Promise<Catalogue> {
    const catalogue = this.fresh ? emptyCatalogue(this.fresh) : await loadCatalogue(em, this.pantry);
    if (!catalogue) throw new PantryGone("The pantry was deleted.");
    this.revision = catalogue.revision;
    return catalogue;
  }

  strange = (icons: readonly string[]): Promise<readonly string[]> =>
    strangeIcons(this.orm.em.fork() as EntityManager, this.pantry, icons);

  async plan(intent: Intent, { progress }: Patience = {}): Promise<Readied> {
    return readied(await this.read(this.orm.em.fork() as EntityManager), intent, progress).readied;
  }

  async submit(submission: Submission, intent: Intent, { progress }: Patience = {}): Promise<Submitted> {
    let plan: Readied | null = null;
    const committed = await commit(
      this.orm,
      this.pantry,
      submission,
      async (em) => {
        const before = await this.read(em);
        const { readied: answer, made } = readied(before, intent, progress);
        plan = answer;
        if ("issues" in answer) return { answers: [{ ok: false, issues: [], conflicts: [] }], writes: [] };
        return { answers: [answer.answer], writes: made ? told(before, made, progress) : [] };
      },
      this.fresh,
    );
    const answer = plan as Readied | null;
    return answer && "issues" in answer ? answer : { committed, plan: answer?.plan };
  }
}

function* told(before: Catalogue, made: Made, progress: Patience["progress"]): Generator<Write> {
  let done = 0;
  for (const write of writesOf(before, [made])) {
    yield write;
    done += "records" in write ? (write.records ?? 0) : 0;
    progress?.({ stage: "writing", done, of: made.edits.length });
  }
}
