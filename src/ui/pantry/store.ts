/**
 * One pantry as this window sees it: a catalogue, and a model of the same revision or of the last one whose consequences
 * are known; followed live.
 */
import { follow, type LiveEvent, type ReadModel, unpackModel } from "@/core/engine/read-model";
import type { LoggedChange, Moved } from "@/core/history/log";
import { type Catalogue, unpacked } from "@/core/catalogue/catalogue";
import { apply, type Conflict, type ApplyResult } from "@/core/catalogue/apply";
import type { Edit } from "@/core/catalogue/edit";
import type { NumberFormat } from "@/core/numbers/decimal";
import { keepFormat, keptFormat } from "./number-format";
import type { Finding } from "@/core/checks/check";
import { type CostMove, effectsOf } from "@/core/engine/effects";
import type { Kind } from "@/core/kinds/index";
import type { Id } from "@/core/schema/id";
import { tellChange } from "@/core/history/telling";
import { iconsIn, noIcons } from "@/core/catalogue/icons";
import { PantryApi, type Problem, type Reply } from "./api";
import { type JudgedFindings, judgedFindings } from "./judged";
import { UndoStack } from "./undo-stack";
import { IconBodies } from "./icon-bodies";
import { DraftKeeper } from "../what-if/draft-keeper";
import { newScenario, savedAs, savedEdits } from "@/core/what-if/scenario";
import { type Draft, ScenarioSession, type ScenarioView } from "../what-if/session";

type Ripple = NonNullable<LiveEvent["ripple"]>;

export interface LastMove {
  readonly change: LoggedChange;
  readonly message: string;
  /** null: the pantry was read again, and no one says what this change moved. */
  readonly moved: Moved | null;
  /** Items whose figures moved. */
  readonly items: ReadonlySet<Id>;
  /** Costs that changed, the largest change first. */
  readonly costs: readonly CostMove[];
  readonly opened: readonly Finding[];
  readonly closed: readonly Finding[];
}
export interface Live extends JudgedFindings {
  readonly catalogue: Catalogue;
  /** Of an earlier revision than the catalogue while the consequences of a change are still being computed. */
  readonly model: ReadModel;
  /** Why there are no newer readings and won't be; null: there are, or they are on their way. */
  readonly stopped: string | null;
  readonly last: LastMove | null;
}

/** Something the person must know: a refusal or a conflict. */
export interface Notice {
  readonly title: string;
  readonly message: string;
  readonly conflicts: readonly Conflict[];
  /** Writes the refused edits over the newer values. */
  readonly insist?: () => void;
}

export interface View {
  readonly state: Live | null;
  readonly link: "opening" | "live" | "away" | "missing";
  readonly notice: Notice | null;
  readonly busy: number;
  readonly canUndo: boolean;
  readonly canRedo: boolean;
  /** The scenario through which this window looks at the pantry; `state` shows what would be. */
  readonly scenario: OpenScenario | null;
  /** The pantry itself, whatever is looked through. */
  readonly base: Live | null;
}
/** A scenario that is worked on, and the edits that are stored of it: null where it has no record. */
export type OpenScenario = ScenarioView & { readonly saved: readonly Edit[] | null };

export type WriteResult =
  | { readonly ok: true; readonly revision: number }
  | { readonly ok: false; readonly message: string };
/** Changes that are kept until what they moved is told. */
const MOST_EARLY = 200;

/** Effects of one change that are listed. */
const MOST_EFFECTS = 200;
/** What a ripple changes; nothing is known where it starts from another revision. */
function listedEffects({ model, judged }: Live, ripple: Ripple): Pick<LastMove, "costs" | "opened" | "closed"> {
  const isOpen = ({ fingerprint, size }: Finding) => !judged.decisions.about(fingerprint, size).accepted;
  if (model.revision !== ripple.from)
    return { costs: [], opened: ripple.put.filter(isOpen).slice(0, MOST_EFFECTS), closed: [] };
  const { costs, opened, closed } = effectsOf(model, ripple, isOpen);
  return {
    costs: costs.slice(0, MOST_EFFECTS),
    opened: opened.slice(0, MOST_EFFECTS),
    closed: closed.slice(0, MOST_EFFECTS),
  };
}

/** A change that this window sends. */
interface OwnChange {
  /** Whether a change that arrives is the one that was sent. */
  is(change: LoggedChange): boolean;
  /** Keeps it for Undo or Redo, under its revision. */
  keep(revision: number): void;
}

/** Edits of a change whose keys are remembered. */
const MOST_REMEMBERED = 200;

export class PantryStore {
  /** Before anything is loaded; what the server renders, and what the first render in the browser must equal. */
  readonly first: View = {
    state: null,
    link: "opening",
    notice: null,
    busy: 0,
    canUndo: false,
    canRedo: false,
    scenario: null,
    base: null,
  };
  private view: View = this.first;
  /** The pantry itself, without the scenario through which this window looks at it. */
  private base: Live | null = null;
  /** Changes that the scenario was not told yet; null: it was read again, and not all of them are known. */
  private untold: LoggedChange[] | null = [];
  private session: ScenarioSession | null = null;
  private readonly listeners = new Set<() => void>();
  private events: EventSource | null = null;
  private loading: Promise<void> | null = null;
  private readonly waiting: { revision: number; done: () => void }[] = [];
  /** This window's own changes. */
  private readonly own: UndoStack;
  private turn: Promise<unknown> = Promise.resolve();
  /** Changes that the server has not answered yet. */
  unanswered = 0;
  /**
   * Keeps the change that is being sent for Undo, if this one is it: what the window shows can be taken back even if the
   * page is reloaded before the answer arrives.
   */
  private arrived: ((change: LoggedChange) => void) | null = null;
  author = "";
  private numbers: NumberFormat | undefined;
  /** Records by the keys they had while this window was open: an address may still name them so. */
  private readonly formerly = new Map<string, Id>();
  /** The record that a key was of, where it is called otherwise now. */
  formerKey = (kind: Kind, key: string): Id | undefined => this.formerly.get(`${kind} ${key}`);
  /** The items that the shelves show, in their order: what is before and behind one that is open. */
  shelf: readonly { readonly id: Id }[] = [];

  readonly api: PantryApi;
  private readonly drafts: DraftKeeper;
  readonly icons = new IconBodies();

  constructor(readonly key: string) {
    this.api = new PantryApi(`/api/pantries/${encodeURIComponent(key)}`);
    const kept = typeof sessionStorage === "undefined" ? null : sessionStorage;
    this.own = new UndoStack(`salty-undo-${key}`, kept);
    this.drafts = new DraftKeeper(`salty-scenario-${key}`, kept);
  }

  subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };
  snapshot = (): View => this.view;
  private set(part: Partial<View>): void {
    const { session } = this;
    if (part.state !== undefined) this.base = part.state;
    if (part.state) {
      this.api.revision = part.state.catalogue.revision;
      session?.moved(part.state, this.untold);
      this.untold = [];
    }
    const { base } = this;
    const scenario = base && session ? session.view : null;
    // Components look at what they picked, and are drawn again only where that is another.
    this.view = {
      ...this.view,
      ...part,
      base,
      state: base && session ? session.live : base,
      scenario: scenario && { ...scenario, saved: base ? savedAs(base.catalogue, scenario.id) : null },
      canUndo: scenario ? scenario.canUndo : this.own.canUndo,
      canRedo: scenario ? scenario.canRedo : this.own.canRedo,
    };
    for (const listener of this.listeners) listener();
  }

  /** Whoever sits here types and reads numbers so from now on. */
  setNumbers(format: NumberFormat): void {
    this.numbers = format;
    keepFormat(format, localStorage);
    const state = this.base;
    if (state) this.set({ state: { ...state, catalogue: { ...state.catalogue, numbers: format } } });
  }

  /** Opens the pantry and follows it. Returns what closes it. */
  open(): () => void {
    void this.load();
    this.listen();
    return () => {
      this.events?.close();
      this.events = null;
    };
  }

  private listen(): void {
    const events = this.api.events();
    this.events = events;
    const compare = (message: MessageEvent<string>) => {
      const {
        revision,
        analysed = -1,
        anew,
      } = JSON.parse(message.data) as {
        revision: number;
        analysed?: number;
        anew?: boolean;
      };
      const state = this.base;
      if (!state) return;
      this.set({ link: "live" });
      if (anew || state.catalogue.revision !== revision || state.model.revision < analysed) void this.load();
    };
    events.addEventListener("hello", compare);
    events.addEventListener("beat", compare);
    events.addEventListener("gone", () => {
      this.events?.close();
      this.events = null;
      this.set({ state: null, link: "missing" });
    });
    events.addEventListener("change", (message: MessageEvent<string>) =>
      this.take(JSON.parse(message.data) as LiveEvent),
    );
    events.onerror = () => {
      if (this.view.state) this.set({ link: "away" });
      if (events.readyState === EventSource.CLOSED && this.events === events)
        setTimeout(() => this.events === events && this.listen(), 1000);
    };
  }

  /** Keys that records have or had, of as many as someone changes by hand at once. */
  private remember(edits: readonly Edit[]): void {
    if (edits.length > MOST_REMEMBERED) return;
    for (const edit of edits)
      if (edit.op === "add" && "key" in edit.record)
        this.formerly.set(`${edit.kind} ${edit.record.key}`, edit.record.id);
      else if (edit.op === "set" && edit.field === "key") this.formerly.set(`${edit.kind} ${edit.from}`, edit.id);
  }

  /** @param tries  so often it is looked at again once the pantry was read again: what it moved is told all the same */
  private take(event: LiveEvent, tries = 3): void {
    const { changes, ripple } = event;
    const state = this.base;
    if (!state) return;
    const to = changes.at(-1)?.revision ?? ripple?.to ?? 0;
    let catalogue: Catalogue | null = state.catalogue;
    for (const change of changes) {
      const { edits, revision } = change;
      this.remember(edits);
      this.arrived?.(change);
      if (!catalogue || revision <= catalogue.revision) continue;
      const outcome: ApplyResult = apply(catalogue, edits);
      catalogue = outcome.ok && outcome.catalogue.revision === revision ? outcome.catalogue : null;
      this.untold?.push(change);
    }
    const fits = !ripple || ripple.to <= state.model.revision || ripple.from === state.model.revision;
    if (!catalogue || catalogue.revision < to || !fits) {
      void this.load().then(() => tries > 0 && this.take(event, tries - 1));
      return;
    }
    if (!ripple) {
      // What it moves is told later.
      this.early = [...this.early, ...changes].slice(-MOST_EARLY);
      if (catalogue !== state.catalogue) this.set({ state: this.moved(state, catalogue), link: "live" });
      this.settle();
      return;
    }
    const last = this.moveTold(state, catalogue, changes, ripple);
    if (ripple.to <= state.model.revision) {
      // The pantry was read again before this was told: what it moved is still news.
      if (catalogue !== state.catalogue || last !== state.last)
        this.set({ state: { ...this.moved(state, catalogue), last, stopped: state.stopped }, link: "live" });
      this.settle();
      return;
    }
    this.early = this.early.filter((c) => c.revision > ripple.to);
    const model = follow(state.model, ripple);
    const judged = judgedFindings(state, catalogue, model);
    this.set({ state: { catalogue, model, ...judged, last, stopped: null }, link: "live" });
    this.settle();
  }
  /** The catalogue has moved on, and the model not yet; what was decided about findings applies at once. */
  private moved(state: Live, catalogue: Catalogue): Live {
    return { ...state, catalogue, ...judgedFindings(state, catalogue, state.model), stopped: null };
  }

  /** What a change moved, in words; what was told last where that is newer. */
  private moveTold(
    state: Live,
    catalogue: Catalogue,
    changes: readonly LoggedChange[],
    ripple: Ripple,
  ): LastMove | null {
    const told = changes.length
      ? changes
      : this.early.filter((c) => c.revision > ripple.from && c.revision <= ripple.to);
    const change = told.at(-1);
    const newest = state.last?.moved === null ? state.last.change.revision - 1 : (state.last?.change.revision ?? 0);
    if (!change || change.revision <= newest) return state.last;
    return {
      change,
      message: tellChange(
        catalogue,
        told.flatMap((c) => c.edits),
      ),
      moved: ripple.moved,
      items: new Set(ripple.figures.map(([id]) => id)),
      ...listedEffects(state, ripple),
    };
  }
  /** What was told last; of changes that were told before their consequences, and are part of what is read again, the last. */
  private unmoved(catalogue: Catalogue, revision: number): LastMove | null {
    const last = this.base?.last ?? null;
    const told = this.early.filter((c) => c.revision > (last?.change.revision ?? 0) && c.revision <= revision);
    const change = told.at(-1);
    if (!change) return last;
    const edits = told.flatMap((c) => c.edits);
    return {
      change,
      message: tellChange(catalogue, edits),
      moved: null,
      items: new Set(),
      costs: [],
      opened: [],
      closed: [],
    };
  }
  /** Changes that were told without their consequences. */
  private early: readonly LoggedChange[] = [];

  private settle(): void {
    const revision = this.base?.catalogue.revision ?? -1;
    for (const wait of this.waiting.splice(0)) {
      if (wait.revision <= revision) wait.done();
      else this.waiting.push(wait);
    }
  }

  load(): Promise<void> {
    this.loading ??= this.fetchAll().finally(() => {
      this.loading = null;
    });
    return this.loading;
  }

  private async fetchAll(): Promise<void> {
    const plain = await this.api.snapshot();
    if (plain === "missing") return this.set({ link: "missing" });
    if (!plain) {
      this.set({ link: this.view.state ? "away" : "opening" });
      setTimeout(() => void this.load(), 1000);
      return;
    }
    this.numbers ??= keptFormat(typeof localStorage === "undefined" ? null : localStorage);
    const catalogue = { ...unpacked(plain), numbers: this.numbers };
    const model = unpackModel(plain.model);
    const last = this.unmoved(catalogue, model.revision);
    const stopped = plain.analysis.state === "stopped" ? (plain.analysis.why ?? "") : null;
    this.own.open(catalogue.pantry.id, catalogue.revision);
    this.untold = null;
    this.set({ state: { catalogue, model, ...judgedFindings(null, catalogue, model), last, stopped }, link: "live" });
    this.resumeScenario();
    this.settle();
  }

  private until(revision: number): Promise<void> {
    if ((this.base?.catalogue.revision ?? -1) >= revision) return Promise.resolve();
    return new Promise((done) => {
      this.waiting.push({ revision, done });
      setTimeout(() => {
        if ((this.base?.catalogue.revision ?? -1) < revision) void this.load();
      }, 1500);
    });
  }

  /** One after the other: what is sent later is read against what was sent before, however slow the server is. */
  private inTurn<T>(act: () => Promise<T>): Promise<T> {
    this.unanswered++;
    const next = this.turn.then(act).finally(() => this.unanswered--);
    this.turn = next.catch(() => undefined);
    return next;
  }

  /** Sends a change and waits until every reading has followed. A refusal is also shown as a notice. */
  submit(edits: readonly Edit[], note = ""): Promise<WriteResult> {
    return this.inTurn(() => this.send(edits, note));
  }

  /** Like `submit`, for what was typed: it is read when its turn has come. */
  write(
    read: (catalogue: Catalogue) => { readonly edits: readonly Edit[] } | { readonly message: string },
  ): Promise<WriteResult> {
    return this.inTurn(async () => {
      if (!this.view.state) return { ok: false, message: "The pantry is not loaded yet." };
      const result = read(this.view.state.catalogue);
      return "message" in result ? { ok: false, message: result.message } : this.send(result.edits, "");
    });
  }

  private send(edits: readonly Edit[], note: string): Promise<WriteResult> {
    return this.session ? Promise.resolve(this.tryOut(this.session, edits)) : this.commit(edits, note);
  }

  /** Into the scenario, in place of the pantry. */
  private tryOut(session: ScenarioSession, edits: readonly Edit[]): WriteResult {
    const revision = this.base?.catalogue.revision ?? 0;
    const outcome = session.add(edits);
    if (!outcome.ok) {
      const { conflicts, issues } = outcome;
      const messages = (conflicts.length ? conflicts : issues).slice(0, 3).map((each) => each.message);
      return this.refuse({
        title: "This can't be tried",
        detail: messages.join(" "),
        conflicts: [],
        issues: [],
        status: 422,
      });
    }
    this.remember(edits);
    return { ok: true, revision };
  }

  private async commit(edits: readonly Edit[], note: string): Promise<WriteResult> {
    if (!edits.length) return { ok: true, revision: this.base?.catalogue.revision ?? 0 };
    this.remember(edits);
    const answer = await this.run(
      () => this.api.change(edits, note, this.author),
      {
        is: (change) =>
          change.author === this.author &&
          change.edits.length === edits.length &&
          JSON.stringify(change.edits) === JSON.stringify(edits),
        keep: (revision) => this.own.did(revision),
      },
      (conflicts) => this.insist(edits, conflicts, note),
    );
    if (answer.ok) {
      void this.tellStrange(iconsIn(edits));
    }
    return answer;
  }

  /** Says which of some icons no one knows: what names them is written, and nothing is drawn for it. */
  private async tellStrange(icons: readonly string[]): Promise<void> {
    const strange = icons.length ? await this.api.strangeIcons(icons).catch(() => []) : [];
    if (strange.length) this.tell("Saved, without a picture", noIcons(strange));
  }

  private insist(edits: readonly Edit[], conflicts: readonly Conflict[], note: string): () => void {
    const newer = edits.map((e) => {
      const hit = e.op === "set" ? conflicts.find((c) => c.id === e.id && c.field === e.field) : undefined;
      return hit && e.op === "set" ? { ...e, from: hit.theirs } : e;
    });
    return () => {
      this.dismiss();
      void this.submit(newer, note);
    };
  }

  private async run(
    send: () => Promise<Reply<{ readonly revision: number }>>,
    own: OwnChange,
    insist?: (conflicts: readonly Conflict[]) => () => void,
  ): Promise<WriteResult> {
    let kept: number | null = null;
    const keep = (revision: number) => {
      if (kept === null) own.keep(revision);
      kept = revision;
    };
    this.arrived = (change) => own.is(change) && keep(change.revision);
    this.set({ busy: this.view.busy + 1 });
    try {
      const got = await send();
      if (!got.ok) return this.refuse(got.problem, insist);
      const { revision } = got.value;
      keep(revision);
      await this.until(revision);
      return { ok: true, revision };
    } finally {
      this.arrived = null;
      this.set({ busy: this.view.busy - 1 });
    }
  }

  private refuse(
    { title, detail, conflicts }: Problem,
    insist?: (conflicts: readonly Conflict[]) => () => void,
  ): WriteResult {
    const notice = {
      title,
      message: detail,
      conflicts,
      insist: conflicts.some((c) => c.field !== "record") && insist ? insist(conflicts) : undefined,
    };
    this.set({ notice });
    return { ok: false, message: notice.message };
  }

  /** Takes a change back by a new one. */
  undoRevision(revision: number): Promise<WriteResult> {
    if (this.session)
      return Promise.resolve(
        this.refuse({
          title: "A scenario is open",
          detail: "Leave it before you undo a change of the pantry.",
          conflicts: [],
          issues: [],
          status: 409,
        }),
      );
    return this.inTurn(() => this.takeBack(revision));
  }

  private takeBack(revision: number): Promise<WriteResult> {
    return this.run(() => this.api.undo(revision, this.author), {
      is: ({ undoes }) => undoes === revision,
      keep: (by) => this.own.tookBack(revision, by),
    });
  }

  /** The latest change of this window that is not taken back yet, from before it was loaded again too. */
  undo(): Promise<void> {
    return this.inTurn(async () => {
      if (this.session) return this.session.undo();
      const revision = this.own.last;
      if (revision !== undefined) await this.takeBack(revision);
    });
  }

  /** Revisions that repeated a change of this window. */
  readonly redone = new Set<number>();

  redo(): Promise<void> {
    return this.inTurn(async () => {
      if (this.session) return this.session.redo();
      const revision = this.own.nextRedo;
      if (revision === undefined) return;
      await this.run(() => this.api.undo(revision, this.author), {
        is: ({ undoes }) => undoes === revision,
        keep: (by) => {
          this.own.broughtBack(revision, by);
          this.redone.add(by);
        },
      });
    });
  }

  /** Looks at the pantry through a scenario from now on; one that has no name yet where none is given. */
  enterScenario(draft: Draft = { id: null, name: "", edits: [] }): void {
    const { base } = this;
    if (!base) return;
    this.keepLeft();
    this.session?.end();
    const session: ScenarioSession = new ScenarioSession(draft, base, () => {
      if (this.session !== session) return;
      this.drafts.keep(session.draft);
      this.set({});
    });
    this.session = session;
    this.drafts.keep(draft);
    this.api.through = session.ask;
    this.set({});
  }
  leaveScenario = (): void => {
    this.keepLeft();
    this.session?.end();
    this.session = null;
    this.api.through = null;
    this.drafts.drop();
    this.set({});
  };
  /** The one that was left last, as it was. */
  left: Draft | null = null;
  private keepLeft(): void {
    if (this.session?.fitting.length) this.left = this.session.draft;
  }
  /** Back into the one that was left, or into an empty one; out of the one that is open. */
  toggleScenario = (): void => {
    if (this.session) this.leaveScenario();
    else this.enterScenario(this.left ?? undefined);
  };
  /** The scenario that was open when this window was loaded again. */
  private resumeScenario(): void {
    const draft = this.session ? null : this.drafts.kept();
    if (draft) this.enterScenario(draft);
  }
  /** Edits of the open scenario in place of those it has. */
  tryInstead(edits: readonly Edit[]): void {
    this.session?.put(edits);
  }
  /** A number of the open scenario is moved, which is taken back at once however long it is moved. */
  tryMoved(edits: readonly Edit[], step: string): void {
    this.session?.add(edits, step);
  }
  /** Keeps the open scenario as a record, which everyone sees. */
  async saveScenario(name: string): Promise<WriteResult> {
    const { session, base } = this;
    if (!session || !base) return { ok: false, message: "No scenario is open." };
    const { id, edits } = session.draft;
    const { catalogue } = base;
    const stored = id === null ? undefined : catalogue.records.scenario.get(id);
    const change = stored ? savedEdits(catalogue, stored, name, edits) : newScenario(catalogue, name, edits);
    const answer = await this.inTurn(() => this.commit(change.edits, ""));
    if (answer.ok && this.session === session) session.named(change.id, name);
    return answer;
  }
  /** Makes the changes of the open scenario, as one, and leaves it. */
  async applyScenario(): Promise<WriteResult> {
    const { session } = this;
    if (!session) return { ok: false, message: "No scenario is open." };
    const { name, unfit } = session.view;
    if (unfit.length) return { ok: false, message: "Some edits no longer fit. Update or drop them first." };
    const note = name ? `Scenario ${name}` : "From What-if";
    const answer = await this.inTurn(() => this.commit(session.fitting, note));
    if (answer.ok) {
      this.leaveScenario();
      this.left = null;
    }
    return answer;
  }
  /** Removes the record of a scenario; one that is open stays open without a name. */
  async deleteScenario(id: Id): Promise<WriteResult> {
    const record = this.base?.catalogue.records.scenario.get(id);
    if (!record) return { ok: false, message: "This scenario was deleted." };
    const answer = await this.inTurn(() => this.commit([{ op: "remove", kind: "scenario", record }], ""));
    if (answer.ok && this.session?.id === id) this.session.named(null, "");
    return answer;
  }

  /** Deletes the pantry for good; the name is what someone typed to confirm. */
  async deletePantry(name: string): Promise<WriteResult> {
    const got = await this.api.deletePantry(name, this.author);
    if (got.ok) return { ok: true, revision: 0 };
    const { status, detail } = got.problem;
    return { ok: false, message: status ? detail : "The server isn't responding. Nothing was deleted." };
  }

  tell(title: string, message: string): void {
    this.set({ notice: { title, message, conflicts: [] } });
  }
  dismiss = (): void => this.set({ notice: null });
}
