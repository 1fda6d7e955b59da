import type { DialInfo, EffectInfo, Playing, Player, Quality, Surround, Triple } from '../api.ts';
import { createPlayer } from '../canvas/createPlayer.ts';
import { FIRST_VIEW } from '../scene/firstView.ts';
import { SURROUNDS } from '../surrounds.ts';

// The page that plays a parcel from one file, without a server: it has the parcel in itself, as base64.

const QUALITIES: readonly Quality[] = ['high', 'middle', 'low'];
const POLL_MILLISECONDS = 100;

const byId = <T extends HTMLElement>(id: string) => document.getElementById(id) as T;

function tell(sentence: string): void {
  const line = byId('fault');
  line.textContent = sentence;
  line.hidden = false;
}

function make<K extends keyof HTMLElementTagNameMap>(
  name: K,
  attributes: Readonly<Record<string, string>>,
  ...children: (Node | string)[]
): HTMLElementTagNameMap[K] {
  const made = document.createElement(name);
  for (const [key, value] of Object.entries(attributes)) made.setAttribute(key, value);
  made.append(...children);
  return made;
}

const lengthOf = ({ opening, hold, closing }: EffectInfo): number => opening + hold.seconds + closing;

/** Where along the time sheet an effect is, so many seconds after it began. */
function sheetSeconds({ opening, hold, closing }: EffectInfo, seconds: number, letGoAt: number | null): number {
  if (letGoAt !== null && seconds >= letGoAt)
    return Math.min(opening + hold.seconds + closing, opening + hold.seconds + seconds - letGoAt);
  return hold.seconds === 0 || seconds < opening ? seconds : opening + ((seconds - opening) % hold.seconds);
}

/** The controls of a dial. */
function dialControl(dial: DialInfo, change: (value: number | boolean | Triple) => void): HTMLElement {
  if (dial.kind === 'switch') {
    const box = make('input', { type: 'checkbox', ...(dial.value ? { checked: '' } : {}) });
    box.oninput = () => change(box.checked);
    return make('label', {}, dial.name, box);
  }
  if (dial.kind === 'number') {
    const [min, max] = [Math.min(dial.least, dial.most), Math.max(dial.least, dial.most)];
    const step = String((max - min) / 200 || 1);
    const slider = make('input', {
      type: 'range',
      min: String(min),
      max: String(max),
      step,
      value: String(dial.value),
    });
    slider.oninput = () => change(Number(slider.value));
    return make('label', {}, dial.name, slider);
  }
  const value = [...dial.value] as [number, number, number];
  const fields = value.map((number, axis) => {
    const field = make('input', {
      type: 'number',
      step: dial.kind === 'place' ? '0.1' : '5',
      value: String(number),
      'aria-label': `${dial.name} ${'XYZ'[axis]}`,
    });
    field.oninput = () => {
      if (!Number.isFinite(field.valueAsNumber)) return;
      value[axis] = field.valueAsNumber;
      change([...value]);
    };
    return field;
  });
  return make('div', { class: 'dial', role: 'group', 'aria-label': dial.name }, dial.name, ...fields);
}

/** Plays one effect of the parcel, and lets the page's controls act on it. */
class Controls {
  readonly #player: Player;
  readonly #begin: (effect: number) => Playing;
  #playing: Playing;
  #isPaused = false;
  #isScrubbing = false;
  #letGoAt: number | null = null;

  constructor(player: Player, effects: readonly EffectInfo[], begin: (effect: number) => Playing) {
    [this.#player, this.#begin] = [player, begin];
    const choice = byId<HTMLSelectElement>('effect');
    choice.append(...effects.map(({ name }, n) => make('option', { value: String(n) }, name)));
    choice.hidden = effects.length < 2;
    choice.oninput = () => this.#show(Number(choice.value));
    byId('play').onclick = () => this.#setPaused(!this.#isPaused);
    byId('letGo').onclick = () => this.#playing.letGo();
    byId('replay').onclick = () => this.#scrub(0);
    byId('camera').onclick = () => this.#player.setCamera(this.#playing.info.camera ?? FIRST_VIEW);
    const surround = byId<HTMLSelectElement>('surround');
    surround.append(...SURROUNDS.map((name) => make('option', { value: name }, name)));
    surround.oninput = () => this.#player.setSurround(surround.value as Surround);
    const quality = byId<HTMLSelectElement>('quality');
    quality.append(...QUALITIES.map((name) => make('option', { value: name }, `${name} quality`)));
    quality.oninput = () => this.#player.setQuality(quality.value as Quality);
    const time = byId<HTMLInputElement>('time');
    time.oninput = () => {
      this.#isScrubbing = true;
      this.#scrub(Number(time.value));
    };
    time.onchange = () => (this.#isScrubbing = false);
    document.addEventListener('keydown', (event) => {
      if (event.key !== ' ' || (event.target as HTMLElement).closest('button, input, select, summary')) return;
      event.preventDefault();
      this.#setPaused(!this.#isPaused);
    });
    this.#playing = this.#show(0);
    setInterval(() => void this.#follow(), POLL_MILLISECONDS);
  }

  #show(effect: number): Playing {
    this.#playing?.stop();
    this.#playing = this.#begin(effect);
    this.#letGoAt = null;
    const { info } = this.#playing;
    if (info.camera) this.#player.setCamera(info.camera);
    const time = byId<HTMLInputElement>('time');
    time.max = String(lengthOf(info));
    byId<HTMLButtonElement>('letGo').hidden = info.hold.kind === 'none';
    byId('licence').textContent = info.licence;
    const dials = byId('dials');
    dials.replaceChildren(
      ...info.dials.map((dial) => dialControl(dial, (value) => this.#playing.setDial(dial.name, value))),
      ...info.signals.map((name) => {
        const button = make('button', { type: 'button' }, name);
        button.onclick = () => this.#playing.signal(name);
        return button;
      }),
    );
    byId('dialled').hidden = dials.childElementCount === 0;
    return this.#playing;
  }

  #setPaused(isPaused: boolean): void {
    this.#isPaused = isPaused;
    if (isPaused) this.#player.pause();
    else this.#player.resume();
    byId('play').textContent = isPaused ? 'Play' : 'Pause';
  }

  /** Goes to a place of the time sheet; within its closing, it is let go when the hold has come round once. */
  #scrub(seconds: number): void {
    const { opening, hold } = this.#playing.info;
    const end = opening + hold.seconds;
    const isClosing = hold.kind !== 'none' && seconds > end;
    this.#letGoAt = isClosing ? end : null;
    this.#playing.seek(seconds, hold.kind === 'none' ? undefined : this.#letGoAt);
  }

  async #follow(): Promise<void> {
    const playing = this.#playing;
    const state = await playing.state().catch(() => null);
    if (!state || playing !== this.#playing) return;
    if (!state.isLetGo) this.#letGoAt = null;
    else this.#letGoAt ??= state.seconds;
    if (state.hasEnded && !this.#isPaused && !this.#isScrubbing) return this.#scrub(0);
    const shown = sheetSeconds(playing.info, state.seconds, this.#letGoAt);
    if (!this.#isScrubbing) byId<HTMLInputElement>('time').value = String(shown);
    byId('seconds').textContent = `${shown.toFixed(2)} s`;
  }
}

async function start(): Promise<void> {
  const text = byId('parcel').textContent!.trim();
  const bytes = Uint8Array.from(atob(text), (letter) => letter.charCodeAt(0));
  const player = createPlayer(byId<HTMLCanvasElement>('picture'));
  player.onFault(tell);
  const parcel = await player.load(bytes);
  new Controls(player, parcel.effects, (effect) => parcel.play(effect));
}

start().catch((error: Error) => tell(error.message));
