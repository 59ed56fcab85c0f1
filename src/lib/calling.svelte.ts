/** A call as its page shows it: where its procedure stands, and what a person answers. */
import {
  answerCommands,
  backCommands,
  contextOf,
  earlierAnswer,
  problemWith,
  standingOf,
} from '#core/procedures/engine.ts';
import { procedureOf } from '#core/procedures/index.ts';
import { NO_ANSWER, type Answer } from '#core/procedures/step.ts';
import { Clock } from './clock.svelte.ts';
import { lastPerson, signed } from './readings.ts';
import type { JobSession } from './store/session.svelte.ts';

export class Calling {
  private readonly clock = new Clock();
  by = $state(lastPerson());
  /** Why the last answer was not taken. */
  said = $state('');
  busy = $state(false);

  constructor(
    private readonly session: () => JobSession,
    private readonly callId: () => string,
  ) {}

  readonly call = $derived.by(() => this.session().document.calls[this.callId()] ?? null);
  readonly procedure = $derived.by(() => (this.call ? (procedureOf(this.call.procedure) ?? null) : null));
  readonly context = $derived.by(() => {
    const session = this.session();
    return this.call && contextOf(session.view, this.call, this.clock.now(session.document));
  });
  readonly standing = $derived.by(() =>
    this.context && this.procedure ? standingOf(this.procedure, this.context) : null,
  );
  readonly step = $derived.by(() => this.standing?.current ?? null);
  /** What was answered here before it was taken back. */
  readonly earlier = $derived.by(() =>
    this.context && this.step ? earlierAnswer(this.context, this.step) : null,
  );
  readonly canGoBack = $derived.by(() => (this.context?.log.entries.length ?? 0) > 0);

  sign = (name: string): string | null => {
    this.by = signed(name);
    return this.by === '' ? 'expected a name' : null;
  };

  /** @returns what is wrong with it, or null when it is on record */
  answer = async (values: Partial<Answer>): Promise<string | null> => {
    const { context, step } = this;
    if (!context || !step || this.busy) return null;
    const answer: Answer = { ...NO_ANSWER, ...values };
    this.said = problemWith(step, answer) ?? '';
    if (this.said !== '') return this.said;
    this.busy = true;
    for (const command of answerCommands(context, step, answer, this.signature()))
      if ((this.said = (await this.session().attempt(command)) ?? '') !== '') break;
    this.busy = false;
    return this.said || null;
  };

  back = async (): Promise<void> => {
    if (!this.context || this.busy) return;
    this.busy = true;
    for (const command of backCommands(this.context, this.signature()))
      if ((this.said = (await this.session().attempt(command)) ?? '') !== '') break;
    this.busy = false;
  };

  private signature = () => ({ by: this.by.trim() || 'not said', at: new Date().toISOString() });
}
