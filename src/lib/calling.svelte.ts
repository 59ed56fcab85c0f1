/** A call as its page shows it: where its procedure stands, and what a person answers. */
import {
  addedCommand,
  answerCommand,
  backCommand,
  contextOf,
  earlierAnswer,
  insteadCommand,
  problemWith,
  standingOf,
  strikeCommand,
} from '#core/procedures/engine.ts';
import { seenDangers } from '#core/diagnosis/hunt/warnings.ts';
import { huntCase, KEYS } from '#core/procedures/hunting/case.ts';
import { HUNTS } from '#core/procedures/hunting/prelude.ts';
import type { Command } from '#core/job/commands.ts';
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

  constructor(
    private readonly session: () => JobSession,
    private readonly callId: () => string,
  ) {}

  readonly call = $derived.by(() => this.session().document.calls[this.callId()] ?? null);
  readonly procedure = $derived.by(() => (this.call ? (procedureOf(this.call.procedure) ?? null) : null));
  private readonly live = $derived.by(() => {
    const session = this.session();
    if (!this.call || !this.procedure) return null;
    const context = contextOf(session.view, this.call, this.clock.now(session.document));
    return { context, standing: standingOf(this.procedure, context) };
  });
  /** What is shown while an answer is on its way: the page turns once, when all of it is stored. */
  private held = $state.raw<typeof this.live>(null);
  readonly context = $derived.by(() => (this.held ?? this.live)?.context ?? null);
  readonly standing = $derived.by(() => (this.held ?? this.live)?.standing ?? null);
  readonly step = $derived.by(() => this.standing?.current ?? null);
  /** Dangers that were measured or told, before anything is weighed. */
  readonly dangers = $derived.by(() => {
    const { context } = this;
    if (!context?.circuit || !HUNTS.has(context.call.procedure)) return [];
    const { evidence, ground } = huntCase(context, context.circuit);
    return seenDangers(evidence, ground.run);
  });
  /** What was answered here before it was taken back. */
  readonly earlier = $derived.by(() =>
    this.context && this.step ? earlierAnswer(this.context, this.step) : null,
  );
  readonly canGoBack = $derived.by(() => (this.context?.log.entries.length ?? 0) > 0);

  sign = (name: string): string | null => {
    this.by = signed(name);
    return this.by === '' ? 'expected a name' : null;
  };

  /** Answers are stored one after the other; a second tap on a step that is answered already is none. */
  private queue: Promise<unknown> = Promise.resolve();

  /** @returns what is wrong with it, or null when it is on record */
  answer = (values: Partial<Answer>): Promise<string | null> => {
    const asked = this.step;
    const done = this.queue.then(async () => {
      const { context, step } = this;
      if (!context || !step || !asked || step.key !== asked.key) return null;
      const answer: Answer = { ...NO_ANSWER, ...values };
      this.said = problemWith(step, answer) ?? '';
      if (this.said === '') await this.store(answerCommand(context, step, answer, this.signature()));
      return this.said || null;
    });
    this.queue = done.catch(() => null);
    return done;
  };

  back = (): void => {
    this.queue = this.queue.then(
      () => this.context && this.store(backCommand(this.context, this.signature())),
    );
  };

  /** Takes an answer back, wherever it stands: its question is asked again. */
  strike = (entryId: string): void => {
    this.queue = this.queue.then(() => {
      const entry = this.context?.log.entries.find((e) => e.id === entryId);
      return entry && this.store(strikeCommand(entry, this.signature()));
    });
  };

  /** Puts something on record that no step asked for. */
  add = (step: string, title: string, said: string, picks: readonly string[]): void => {
    this.queue = this.queue.then(() => {
      if (!this.call) return;
      return this.store(
        addedCommand(this.call.id, { step, title, said, picks: [...picks] }, this.signature()),
      );
    });
  };

  /** Asks for another measurement than the one that was advised. */
  insteadOf = (step: string, order: string, note: string): void => {
    this.queue = this.queue.then(async () => {
      const key = step.replace(KEYS.find, KEYS.think);
      const entry = this.context?.log.entry(key);
      if (!entry) return;
      await this.store(insteadCommand(entry, { picks: [order], said: note, note }, this.signature()));
    });
  };

  private async store(command: Command | null): Promise<void> {
    if (command === null) return;
    this.held = this.live;
    try {
      this.said = (await this.session().attempt(command)) ?? '';
    } finally {
      this.held = null;
    }
  }

  private signature = () => ({ by: this.by.trim() || 'not said', at: new Date().toISOString() });
}
