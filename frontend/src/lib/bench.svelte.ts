/**
 * One formula on the bench: what the cook edits, what the core answered, undo, autosave, conflicts.
 * Edits are sent to the core one after the other; nothing is computed here.
 */
import {
  api,
  ProblemError,
  type Catalogue,
  type Edit,
  type Evaluation,
  type Figure,
  type Formula,
  type Sheets,
  type StoredFormula,
} from "./api/client";
import { dropDraft, findDraft, keepDraft } from "./drafts";
import { hand } from "./hand";
import { Outbox } from "./outbox.svelte";
import { Resource } from "./resource.svelte";
import { session } from "./session.svelte";
import { units } from "./units.svelte";

export type SaveState = "saved" | "saving" | "unsaved" | "away" | "conflict";
export interface Refusal {
  target: string;
  detail: string;
}

const SAVE_AFTER_MS = 500;
const RETRY_AFTER_MS = 2000;
const MOST_UNDO = 200;

/** Which control an edit belongs to, so that a refusal shows where it was typed. */
export function targetOf(figure: Figure | string, item = ""): string {
  return item ? `${figure}:${item}` : figure;
}

function targetOfEdit(edit: Edit): string {
  if (edit.kind === "type" || edit.kind === "nudge" || edit.kind === "set")
    return targetOf(edit.figure, edit.item);
  if (edit.kind === "choose") return edit.field;
  return edit.kind;
}

/** Figures that have a handle on a drawn scale. */
const DRAGGED: readonly string[] = ["salt", "group", "panade", "diameter", "length"];

/** What a drag moves: its edits overtake each other, and are one step back together. Null for what is no drag. */
function dragged(edit: Edit): string | null {
  if (edit.kind === "move-edge") return `edge ${edit.index}`;
  if (edit.kind === "set" && DRAGGED.includes(edit.figure)) return `${edit.figure} ${edit.item ?? ""}`;
  if (edit.kind === "pin-task" && edit.start_min != null) return `pin ${edit.task}`;
  return null;
}

export class Bench {
  readonly id: number;
  formula = $state.raw<Formula | null>(null);
  evaluation = $state.raw<Evaluation | null>(null);
  /** How far each figure may go; the same for every formula. */
  ranges = $state.raw<Catalogue["ranges"] | null>(null);
  save = $state<SaveState>("saved");
  missing = $state(false);
  problem = $state<string | null>(null);
  refusal = $state<Refusal | null>(null);
  theirs = $state.raw<StoredFormula | null>(null);

  #revision = 0;
  /** What stood in the store when this work began: two edits are put together from it. */
  base: Formula | null = null;
  #unanswered: Formula | null = null;
  #past = $state.raw<Formula[]>([]);
  #future = $state.raw<Formula[]>([]);
  #travelling = false;
  /** What is opened beside the figures; asked for by whatever shows it. */
  readonly sheets = new Resource<Formula, Sheets>((formula, signal) =>
    api.sheets(formula, units.system, signal),
  );
  #outbox = new Outbox<Edit>({
    send: (edit) => this.#apply(edit),
    keep: () => this.#keep(),
    refused: (edit, problem) => (this.refusal = { target: targetOfEdit(edit), detail: problem.detail }),
    lost: () => (this.save = this.save === "conflict" ? "conflict" : "away"),
    ready: () => this.formula != null && !this.#travelling && !this.#journeyIsNext(),
    idle: () => {
      if (this.#journeyIsNext()) this.#next();
    },
    retryMs: RETRY_AFTER_MS,
  });
  // Steps back and forth asked for meanwhile, each with the edit that was last in line then: it comes first.
  #journeys: { way: "back" | "forth"; after: Edit | undefined }[] = [];
  #saveTimer: ReturnType<typeof setTimeout> | undefined;
  #retryTimer: ReturnType<typeof setTimeout> | undefined;
  #saving: Promise<void> | null = null;
  #closed = false;

  constructor(id: number) {
    this.id = id;
  }

  /** Edits that the core has not answered yet. */
  get waiting(): Edit[] {
    return this.#outbox.items;
  }
  get #working(): boolean {
    return this.#travelling || this.#outbox.sending;
  }
  get canUndo(): boolean {
    return this.#past.length > 0;
  }
  get canRedo(): boolean {
    return this.#future.length > 0;
  }

  async load(): Promise<void> {
    try {
      const stored = await api.formula(this.id);
      this.#revision = stored.revision;
      const draft = findDraft(this.id);
      this.base = draft ? (draft.base ?? null) : stored.formula;
      const mine = draft?.formula ?? stored.formula;
      const answer = await api.evaluate(mine, [], units.system);
      this.problem = null;
      this.missing = false;
      this.formula = answer.formula;
      this.evaluation = answer.evaluation;
      if (draft) {
        this.save = "unsaved";
        this.#unanswered = draft.sent;
        if (draft.sent) {
          // A save may have landed though a reload lost its answer: it is sent again as it was, and the
          // store tells this window's own work from somebody else's.
          this.#revision = draft.revision;
        } else if (draft.revision !== stored.revision) {
          this.theirs = stored;
          this.save = "conflict";
        }
        this.#outbox.restore(draft.waiting);
        this.#keep();
        this.#saveSoon();
      }
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      if (error.problem.status === 404) this.missing = true;
      else {
        this.problem = error.problem.detail;
        if (error.away && !this.#closed)
          this.#retryTimer = setTimeout(() => void this.load(), RETRY_AFTER_MS);
      }
    }
  }

  close(): void {
    this.#closed = true;
    this.#outbox.close();
    clearTimeout(this.#saveTimer);
    clearTimeout(this.#retryTimer);
    if (this.save === "unsaved") void this.#saveNow();
  }

  /** Send an edit to the core. A drag that was not sent yet is overtaken by the next one. */
  edit(edit: Edit): void {
    this.#note(edit);
    const last = this.waiting.at(-1);
    const overtakes =
      this.#journeys.length === 0 &&
      dragged(edit) != null &&
      last !== undefined &&
      dragged(last) === dragged(edit);
    if (overtakes) this.#outbox.overtake(edit);
    else this.#outbox.push(edit);
  }

  /** One edit to the core and back. */
  async #apply(edit: Edit): Promise<void> {
    const before = this.formula;
    if (!before) return;
    const answer = await api.evaluate(before, [edit], units.system);
    this.refusal = null;
    if (JSON.stringify(answer.formula) !== JSON.stringify(before)) this.#remember(before, edit);
    this.#accept(answer.formula, answer.evaluation, this.#leaves(edit));
  }

  /** Whether nothing waits once this edit is done. */
  #leaves(edit: Edit): boolean {
    return this.waiting.length === 0 || (this.waiting.length === 1 && this.waiting[0] === edit);
  }

  /** Whether all edits made before the next step back or forth are done. */
  #journeyIsNext(): boolean {
    const next = this.#journeys[0];
    return next !== undefined && !(next.after && this.waiting.includes(next.after));
  }

  /** Steps back and forth that were asked for meanwhile, then edits. */
  #next(): void {
    const journey = this.#journeyIsNext() ? this.#journeys.shift() : undefined;
    if (journey) void this.#travel(journey.way);
    else void this.#outbox.drain();
  }

  #drag: { what: string; at: number; hold: number | null; nth: number } | null = null;
  #drags = 0;
  readonly #dragOf = new WeakMap<Edit, number>();
  #lastRemembered: number | null = null;

  /** Which drag an edit is of: until the hand lets go, or by when it moved where nobody says that it holds on. */
  #note(edit: Edit): void {
    const what = dragged(edit);
    const now = performance.now();
    if (what == null) {
      this.#drag = null;
      return;
    }
    const hold = hand.hold;
    const goesOn = this.#drag && (hold !== null ? this.#drag.hold === hold : now - this.#drag.at < 700);
    const nth = this.#drag?.what === what && goesOn ? this.#drag.nth : ++this.#drags;
    this.#drag = { what, at: now, hold, nth };
    this.#dragOf.set(edit, nth);
  }

  /** One drag is one step back, however many answers it took. */
  #remember(before: Formula, edit: Edit): void {
    const nth = this.#dragOf.get(edit) ?? null;
    const sameDrag = nth != null && nth === this.#lastRemembered;
    this.#lastRemembered = nth;
    if (!sameDrag) this.#past = [...this.#past, before].slice(-MOST_UNDO);
    this.#future = [];
  }

  #accept(formula: Formula, evaluation: Evaluation, last = this.waiting.length === 0): void {
    const changed = JSON.stringify(formula) !== JSON.stringify(this.formula);
    this.formula = formula;
    this.evaluation = evaluation;
    if (changed) {
      if (this.save !== "conflict") this.save = "unsaved";
      this.#keep();
      this.#saveSoon();
    } else if (this.save === "away" && last) {
      this.save = "unsaved";
      this.#saveSoon();
    }
  }

  async undo(): Promise<void> {
    await this.#travel("back");
  }
  async redo(): Promise<void> {
    await this.#travel("forth");
  }

  async #travel(way: "back" | "forth"): Promise<void> {
    if (this.#working) {
      // Pressed faster than the core answers: each press counts, after what is under way.
      this.#journeys.push({ way, after: this.waiting.at(-1) });
      return;
    }
    const from = way === "back" ? this.#past : this.#future;
    const to = from.at(-1);
    if (!to || !this.formula) {
      // Pressed once too often; what was edited meanwhile must not wait for it.
      this.#next();
      return;
    }
    this.#travelling = true;
    // What is dragged after a step back is a new step, also where the hand moved before the step was taken.
    this.#drag = null;
    this.#lastRemembered = null;
    try {
      const answer = await api.evaluate(to, [], units.system);
      if (way === "back") {
        this.#past = from.slice(0, -1);
        this.#future = [...this.#future, this.formula];
      } else {
        this.#future = from.slice(0, -1);
        this.#past = [...this.#past, this.formula];
      }
      this.refusal = null;
      this.#accept(answer.formula, answer.evaluation);
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      this.refusal = { target: "undo", detail: error.problem.detail };
    } finally {
      this.#travelling = false;
      this.#next();
    }
  }

  /** Put a whole formula on the bench, as one step that can be undone. */
  async put(formula: Formula): Promise<void> {
    if (!this.formula) return;
    const before = this.formula;
    const answer = await api.evaluate(formula, [], units.system);
    this.#past = [...this.#past, before].slice(-MOST_UNDO);
    this.#future = [];
    this.#accept(answer.formula, answer.evaluation);
  }

  #keep(): void {
    if (this.formula && session.may("chef"))
      keepDraft(this.id, {
        revision: this.#revision,
        formula: this.formula,
        base: this.base,
        waiting: this.waiting,
        sent: this.#unanswered,
      });
  }

  #saveSoon(): void {
    clearTimeout(this.#saveTimer);
    if (!session.may("chef")) return;
    this.#saveTimer = setTimeout(() => void this.#saveNow(), SAVE_AFTER_MS);
  }

  #retryLater(): void {
    clearTimeout(this.#retryTimer);
    if (this.#closed) return;
    this.#retryTimer = setTimeout(() => {
      this.#keep();
      if (this.waiting.length > 0) void this.#outbox.drain();
      else void this.#saveNow();
    }, RETRY_AFTER_MS);
  }

  /** Save at once and wait for it: before a cook begins, a version is kept or a file is written. */
  async settle(): Promise<boolean> {
    clearTimeout(this.#saveTimer);
    await this.#saving;
    if (this.save !== "saved") await this.#saveNow();
    return this.save === "saved";
  }

  async #saveNow(): Promise<void> {
    if (!this.formula || this.save === "conflict" || this.save === "saved" || !session.may("chef")) return;
    // One at a time: of two that waited for the same save, the second waits for the first one's too.
    while (this.#saving) await this.#saving;
    if (["saved", "conflict"].includes(this.save as SaveState)) return;
    // What was sent and never answered goes first, as it was: it may stand already, and then it is no conflict.
    this.#saving = this.#send(this.#unanswered ?? this.formula);
    try {
      await this.#saving;
    } finally {
      this.#saving = null;
    }
  }

  async #send(sent: Formula): Promise<void> {
    this.save = "saving";
    this.#unanswered = sent;
    this.#keep();
    try {
      const stored = await api.saveFormula(this.id, sent, this.#revision);
      this.#revision = stored.revision;
      this.base = sent;
      this.#unanswered = null;
      if (this.formula === sent && this.waiting.length === 0) {
        this.save = "saved";
        dropDraft(this.id);
      } else {
        this.save = "unsaved";
        this.#keep();
        this.#saveSoon();
      }
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      if (!error.away) {
        this.#unanswered = null;
        this.#keep();
      }
      if (error.problem.status === 409) {
        this.theirs = error.problem.current as StoredFormula;
        this.save = "conflict";
      } else if (error.away) {
        this.save = "away";
        this.#retryLater();
      } else {
        this.save = "unsaved";
        this.refusal = { target: "save", detail: error.problem.detail };
      }
    }
  }

  /** Someone else saved: mine over theirs. Theirs stays one step back in undo. */
  async keepMine(): Promise<void> {
    if (!this.theirs || !this.formula) return;
    this.#past = [...this.#past, this.theirs.formula].slice(-MOST_UNDO);
    this.#revision = this.theirs.revision;
    this.base = this.theirs.formula;
    this.theirs = null;
    this.save = "unsaved";
    await this.#saveNow();
  }

  /** Someone else saved: both edits in one formula. Mine alone stays one step back in undo. */
  async takeMerged(formula: Formula): Promise<void> {
    if (!this.theirs || !this.formula) return;
    const answer = await api.evaluate(formula, [], units.system);
    this.#past = [...this.#past, this.formula].slice(-MOST_UNDO);
    this.#future = [];
    this.#revision = this.theirs.revision;
    this.base = this.theirs.formula;
    this.formula = answer.formula;
    this.evaluation = answer.evaluation;
    this.theirs = null;
    this.save = "unsaved";
    this.#keep();
    await this.#saveNow();
  }

  /** Someone else saved: take theirs. Mine stays one step back in undo. */
  async takeTheirs(): Promise<void> {
    if (!this.theirs) return;
    const stored = this.theirs;
    const answer = await api.evaluate(stored.formula, [], units.system);
    if (this.formula) this.#past = [...this.#past, this.formula].slice(-MOST_UNDO);
    this.#revision = stored.revision;
    this.base = stored.formula;
    this.formula = answer.formula;
    this.evaluation = answer.evaluation;
    this.theirs = null;
    this.save = "saved";
    dropDraft(this.id);
  }

  /** Someone else saved: mine becomes a formula of its own; returns its id. */
  async keepBoth(): Promise<number | null> {
    if (!this.formula) return null;
    const copy = await api.createFormula({
      ...this.formula,
      name: `${this.formula.name.slice(0, 70)}, mine`,
    });
    dropDraft(this.id);
    return copy.id;
  }
}
