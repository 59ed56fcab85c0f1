/** The light the screen is read in: day, a dark attic, or full sun. */
export const LIGHTS = ['day', 'attic', 'sun'] as const;
type Light = (typeof LIGHTS)[number];

const isLight = (value: string | undefined): value is Light => LIGHTS.includes(value as Light);

class LightSetting {
  current = $state<Light>('day');

  constructor() {
    const chosen = document.documentElement.dataset.light;
    if (isLight(chosen)) this.current = chosen;
  }

  choose(light: Light): void {
    this.current = light;
    document.documentElement.dataset.light = light;
    try {
      localStorage.setItem('hekto-light', light);
    } catch {
      // Storage may be shut off; the choice holds for this visit.
    }
  }

  next = (): void => this.choose(LIGHTS[(LIGHTS.indexOf(this.current) + 1) % LIGHTS.length]!);
}

export const light = new LightSetting();
