/** Hands free: the step read aloud by the browser’s own voice, and the screen kept awake. */

interface Lock {
  release(): Promise<void>;
}

export class HandsFree {
  on = $state(false);
  /** What this browser cannot do of it. */
  lacks = $state('');
  private lock: Lock | null = null;

  toggle = async (): Promise<void> => {
    this.on = !this.on;
    if (!this.on) return this.stop();
    const missing: string[] = [];
    if (!('speechSynthesis' in window)) missing.push('no voice');
    // Kept awake over TLS or on this device alone.
    if (!('wakeLock' in navigator)) missing.push('the screen may sleep');
    else
      try {
        this.lock = (await navigator.wakeLock.request('screen')) as Lock;
      } catch {
        missing.push('the screen may sleep');
      }
    this.lacks = missing.join(', ');
  };

  stop = (): void => {
    window.speechSynthesis?.cancel();
    void this.lock?.release();
    this.lock = null;
    this.on = false;
  };

  say(text: string): void {
    if (!this.on || !('speechSynthesis' in window)) return;
    window.speechSynthesis.cancel();
    window.speechSynthesis.speak(new SpeechSynthesisUtterance(text));
  }
}
