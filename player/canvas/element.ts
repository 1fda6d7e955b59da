import { createPlayer } from './createPlayer.ts';
import { SURROUNDS } from '../surrounds.ts';
import type { Player, Playing, Quality, Surround } from '../api.ts';

const QUALITIES: readonly Quality[] = ['low', 'middle', 'high'];
const isSurround = (name: string): name is Surround => SURROUNDS.some((known) => known === name);

/** Where there is no page, as in Node, the module can be loaded all the same. */
const Base: typeof HTMLElement = globalThis.HTMLElement ?? (class {} as typeof HTMLElement);

/**
 * `<jinx-effect src="mantle.parcel.zip">`: plays an effect of a parcel, again and again.
 *
 * | attribute  | what                                                      |
 * | src        | where the parcel is                                       |
 * | effect     | the name of one of its effects; the first unless told     |
 * | surround   | night, dusk, overcast, noon, busy or bare; the effect's own unless told |
 * | quality    | low, middle or high; high unless told                     |
 * | figure     | "none" leaves figures out                                 |
 * | alt        | what is seen, in words, for those who do not see it       |
 *
 * Its size is set by CSS. It sends the events `ready`, `ended` and `fault` (`detail.sentence`).
 */
export class JinxEffectElement extends Base {
  static readonly observedAttributes = ['src', 'effect', 'surround', 'quality', 'alt'];
  player: Player | null = null;
  playing: Playing | null = null;

  connectedCallback(): void {
    const canvas = document.createElement('canvas');
    canvas.style.cssText = 'display:block;width:100%;height:100%;touch-action:none';
    canvas.tabIndex = 0;
    canvas.setAttribute('role', 'img');
    if (getComputedStyle(this).display === 'inline') this.style.display = 'block';
    this.replaceChildren(canvas);
    this.#describe();
    try {
      const surround = this.getAttribute('surround') ?? '';
      this.player = createPlayer(canvas, {
        figures: this.getAttribute('figure') !== 'none',
        ...(isSurround(surround) ? { surround } : {}),
        quality: this.#quality,
      });
    } catch (error) {
      return this.#fault((error as Error).message);
    }
    this.player.onFault((sentence) => this.#fault(sentence));
    void this.#begin();
  }

  disconnectedCallback(): void {
    const { player } = this;
    [this.player, this.playing] = [null, null];
    player?.dispose();
  }

  attributeChangedCallback(name: string): void {
    if (!this.player) return;
    const surround = this.getAttribute('surround') ?? '';
    if (name === 'alt') this.#describe();
    else if (name === 'quality') this.player.setQuality(this.#quality);
    else if (name === 'surround') {
      if (isSurround(surround)) this.player.setSurround(surround);
    } else void this.#begin();
  }

  get #quality(): Quality {
    const told = this.getAttribute('quality') as Quality;
    return QUALITIES.includes(told) ? told : 'high';
  }

  #describe(): void {
    const text = this.getAttribute('alt') ?? this.getAttribute('effect') ?? 'An effect';
    this.firstElementChild?.setAttribute('aria-label', text);
  }

  #fault(sentence: string): void {
    if (this.player === null && !this.isConnected) return;
    this.dispatchEvent(new CustomEvent('fault', { detail: { sentence } }));
  }

  async #begin(): Promise<void> {
    const [{ player }, src] = [this, this.getAttribute('src')];
    this.playing?.stop();
    this.playing = null;
    if (!player || !src) return;
    try {
      const parcel = await player.load(new URL(src, document.baseURI));
      if (player !== this.player || src !== this.getAttribute('src')) return;
      this.playing = parcel.play(this.getAttribute('effect') ?? 0, { repeats: true });
      this.playing.on('ended', () => this.dispatchEvent(new CustomEvent('ended')));
      this.dispatchEvent(new CustomEvent('ready', { detail: { effects: parcel.effects } }));
    } catch (error) {
      if (player === this.player) this.#fault((error as Error).message);
    }
  }
}

/** Makes `<jinx-effect>` known to the page; a second time changes nothing. */
export function defineElement(name = 'jinx-effect'): void {
  if (!customElements.get(name)) customElements.define(name, JinxEffectElement);
}
