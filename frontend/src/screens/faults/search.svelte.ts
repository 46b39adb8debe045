/** What was said of a batch that went wrong: symptoms, answers, and what was measured besides. */
import type { FaultQuestion, Symptom } from "../../lib/api/client";

export class FaultTold {
  symptoms = $state<Symptom[]>([]);
  /** By the cause that the question was of. */
  answers = $state<Record<string, boolean>>({});
  /** Questions that nobody can answer any more. */
  passed = $state<string[]>([]);
  surface_c = $state<number | null>(null);
  core_c = $state<number | null>(null);

  /** Names a symptom, or takes it back; answers stay, since they are about the batch. */
  toggle(symptom: Symptom, most: number): void {
    const has = this.symptoms.includes(symptom);
    if (!has && this.symptoms.length >= most) return;
    this.symptoms = has ? this.symptoms.filter((s) => s !== symptom) : [...this.symptoms, symptom];
  }
  answer(cause: string, yes: boolean): void {
    this.answers = { ...this.answers, [cause]: yes };
  }
  takeBack(cause: string): void {
    this.answers = Object.fromEntries(Object.entries(this.answers).filter(([key]) => key !== cause));
  }

  asked = $derived<FaultQuestion>({
    symptoms: [...this.symptoms],
    absent: [],
    answers: { ...this.answers },
    surface_c: this.surface_c,
    core_c: this.core_c,
  });
}
