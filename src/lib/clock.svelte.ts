/** The time, for what holds for a while: looked at again now and then, and whenever something changes. */
const EVERY_MS = 15000;

export class Clock {
  private tick = $state(0);

  /** Runs while the part that holds it is on screen. */
  constructor() {
    $effect(() => {
      const timer = setInterval(() => this.tick++, EVERY_MS);
      return () => clearInterval(timer);
    });
  }

  /** UTC time. @param since whatever asks for a new look when it changes */
  now(since: unknown): string {
    void since;
    void this.tick;
    return new Date().toISOString();
  }
}
