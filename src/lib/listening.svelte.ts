/** The phone at the outlet: hears when what is loud stops, and notes when its own charging does. */
import { codeOf, SoundWatch, type Span } from '#core/procedures/twoPhones.ts';

const KEY = 'hekto-listen';
/** How often the sound is looked at, milliseconds. */
const EVERY = 100;

interface Charging extends EventTarget {
  charging: boolean;
}

export class Listening {
  state = $state<'idle' | 'listening' | 'refused'>('idle');
  /** Why the sound cannot be heard. */
  problem = $state('');
  level = $state(0);
  silent = $state(false);
  settled = $state(false);
  spans = $state.raw<readonly Span[]>([]);
  readonly code = $derived.by(() => codeOf(this.spans));

  private start = 0;
  private timer: ReturnType<typeof setInterval> | undefined;
  private stream: MediaStream | null = null;
  private audio: AudioContext | null = null;
  private lock: { release(): Promise<void> } | null = null;
  private unplugged: number | null = null;
  private charged: Span[] = [];
  private watch = new SoundWatch();

  constructor() {
    try {
      const kept = JSON.parse(sessionStorage.getItem(KEY) ?? 'null') as Span[] | null;
      if (Array.isArray(kept)) this.spans = kept;
    } catch {
      // Nothing was kept, or nothing that can be read.
    }
  }

  private now = (): number => (performance.now() - this.start) / 1000;

  begin = async (): Promise<void> => {
    this.stop();
    this.problem = '';
    try {
      // Raw: what makes voices clear takes a steady hum for noise.
      this.stream = await navigator.mediaDevices.getUserMedia({
        audio: { echoCancellation: false, noiseSuppression: false, autoGainControl: false },
      });
    } catch (error) {
      this.state = 'refused';
      this.problem =
        navigator.mediaDevices === undefined
          ? 'This address is not safe in the browser’s eyes: the microphone needs https.'
          : `The microphone was refused (${(error as Error).name}). Allow it for this address.`;
      return;
    }
    this.audio = new AudioContext();
    await this.audio.resume();
    const analyser = this.audio.createAnalyser();
    analyser.fftSize = 2048;
    this.audio.createMediaStreamSource(this.stream).connect(analyser);
    const samples = new Float32Array(analyser.fftSize);
    this.ready = () => {
      analyser.getFloatTimeDomainData(samples);
      this.hear(Math.sqrt(samples.reduce((sum, s) => sum + s * s, 0) / samples.length));
    };
    this.state = 'listening';
    void this.watchCharging();
    try {
      this.lock = (await navigator.wakeLock?.request('screen')) ?? null;
    } catch {
      // The screen may sleep; the page says to keep it on.
    }
  };
  private ready: () => void = () => {};
  started = $state(false);

  /** The common moment of both phones. */
  mark = (): void => {
    this.start = performance.now();
    this.watch = new SoundWatch();
    this.charged = [];
    this.spans = [];
    this.started = true;
    clearInterval(this.timer);
    this.timer = setInterval(this.ready, EVERY);
  };

  private hear(level: number): void {
    this.watch.hear(this.now(), level);
    this.level = level;
    this.settled = this.watch.running !== null;
    this.silent = this.watch.silent;
    this.keep();
  }
  private keep(): void {
    const heard = [...this.watch.spans, ...this.charged];
    if (heard.length === this.spans.length) return;
    this.spans = heard;
    sessionStorage.setItem(KEY, JSON.stringify(heard));
  }

  /** Where the browser tells of it, a charger that loses its power says the same as a sound that stops. */
  private async watchCharging(): Promise<void> {
    const { getBattery } = navigator as Navigator & { getBattery?: () => Promise<Charging> };
    if (!getBattery) return;
    const battery = await getBattery.call(navigator);
    battery.addEventListener('chargingchange', () => {
      if (!this.started) return;
      if (!battery.charging) this.unplugged = this.now();
      else if (this.unplugged !== null) {
        // A sound that stopped at the same time is the same stop.
        const span = { from: this.unplugged, to: this.now() };
        if (!this.watch.spans.some((s) => Math.abs(s.from - span.from) < 3)) this.charged.push(span);
        this.unplugged = null;
      }
      this.keep();
    });
  }

  stop = (): void => {
    clearInterval(this.timer);
    this.stream?.getTracks().forEach((t) => t.stop());
    void this.audio?.close();
    void this.lock?.release();
    this.stream = this.audio = this.lock = null;
    this.started = false;
    if (this.state === 'listening') this.state = 'idle';
  };
}
