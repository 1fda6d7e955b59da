import { expect, test } from './test.ts';
import { collectionOf, newStep, setNumber, setStep, type Effect, type Layer, type Step } from '@jinx/core/document';
import { METRE, GRID, one, near, MIDDLE_X, MIDDLE_Y, ASSETS, pairsOf, view } from './oneLayer.ts';
import { StageHarness } from './stageHarness.ts';

const stage = StageHarness.forFile(ASSETS);
const pair = pairsOf(stage);

const pictured = (change: (step: Extract<Step, { kind: 'picture' }>, layer: Layer) => void) =>
  one((layer) => {
    const step = { ...newStep('picture'), picture: { asset: GRID, name: 'grid' } };
    change(step, layer);
    layer.look = { kind: 'own', steps: collectionOf([['p', step]]) };
  });

test.describe('a picture', () => {
  /** Which colour the picture shows at a share of the sprite, from its middle. */
  const seen = async (effect: Effect, x: number, y: number, at = 30) => {
    const picture = await stage.picture(effect, at, view);
    return picture.lightAt(MIDDLE_X + Math.round(x * METRE), MIDDLE_Y - Math.round(y * METRE));
  };
  const nameOf = ([r, g, b]: readonly number[]) =>
    r! > 0.5 && g! < 0.3 ? 'red' : g! > 0.5 && r! < 0.3 ? 'green' : b! > 0.5 && r! < 0.3 ? 'blue' : 'other';

  test('lies upright, and is read by the part that is asked for', async () => {
    const plain = pictured(() => undefined);
    expect(nameOf(await seen(plain, -0.25, 0.25))).toBe('red');
    expect(nameOf(await seen(plain, 0.25, 0.25))).toBe('green');
    expect(nameOf(await seen(plain, -0.25, -0.25))).toBe('blue');
    const part = (value: string) => pictured((step) => setStep(step, 'part', value));
    near((await seen(part('red'), -0.25, 0.25))[1], 1, 0.05);
    near((await seen(part('red'), 0.25, 0.25))[1], 0, 0.02);
    near((await seen(part('green'), 0.25, 0.25))[0], 1, 0.05);
    near((await seen(part('brightness'), 0.25, 0.25))[0], 0.7152, 0.04);
    near((await seen(part('alpha'), -0.25, 0.25))[2], 1, 0.05);
  });

  test('makes opaque by its alpha, by its brightness or not at all, as far as its amount says', async () => {
    const covers = async (change: (step: Step) => void, x: number, y: number) => {
      const effect = pictured(change);
      const { withIt, without } = await pair(effect);
      const at = [MIDDLE_X + Math.round(x * METRE), MIDDLE_Y - Math.round(y * METRE)] as const;
      const [seen, behind] = [withIt.lightAt(...at), without.lightAt(...at)];
      return { seen, behind };
    };
    const half = await covers(() => undefined, 0.25, -0.25);
    near(half.seen[0], half.behind[0] * 0.5 + 0.5, 0.03);
    const bright = await covers((step) => setStep(step, 'opacity', 'its brightness'), -0.25, -0.25);
    near(bright.seen[2], bright.behind[2] * (1 - 0.0722) + 0.0722, 0.02);
    const whole = await covers((step) => setStep(step, 'opacity', 'nothing'), 0.25, -0.25);
    near(whole.seen[0], 1, 0.03);
    const faint = await covers((step) => setStep(step, 'amount', 40), -0.25, 0.25);
    near(faint.seen[1], 0.6, 0.04);
  });

  test('is crisp or smooth, and goes on beyond its edges as told', async () => {
    // Across the border between red and green.
    const border = async (reading: string) => {
      const picture = await stage.picture(
        pictured((step) => setStep(step, 'reading', reading)),
        30,
        view,
      );
      let mixed = 0;
      for (let x = MIDDLE_X - 12; x < MIDDLE_X + 12; x++) {
        const [r, g] = picture.lightAt(x, MIDDLE_Y - 30);
        if (r > 0.15 && g > 0.15) mixed++;
      }
      return mixed;
    };
    expect(await border('crisp')).toBeLessThanOrEqual(1);
    expect(await border('smooth')).toBeGreaterThan(3);
    const beyond = (edges: string) => {
      const effect = pictured((step) => setStep(step, 'edges', edges));
      const { look } = effect.layers.byId['one']!;
      const scroll = newStep('scroll');
      setStep(scroll, 'repeatAcross', 2);
      setStep(scroll, 'repeatAlong', 2);
      if (look.kind === 'own')
        look.steps = collectionOf([
          ['s', scroll as Step],
          ['p', look.steps.byId['p']!],
        ]);
      return effect;
    };
    // To the right of the picture's own right half, above the middle.
    expect(nameOf(await seen(beyond('repeated'), 0.3, 0.15))).toBe('red');
    expect(nameOf(await seen(beyond('mirrored'), 0.3, 0.15))).toBe('green');
    expect(nameOf(await seen(beyond('its border'), 0.45, 0.15))).toBe('green');
    const { withIt, without } = await pair(beyond('nothing'));
    const at = [MIDDLE_X + Math.round(0.4 * METRE), MIDDLE_Y - Math.round(0.15 * METRE)] as const;
    expect(withIt.at(...at)).toEqual(without.at(...at));
  });

  test('dissolves by its brightness: the darkest quarter goes first', async () => {
    const quarters = async (amount: number) => {
      const { withIt, without } = await pair(
        one((layer) => {
          const step = {
            ...(newStep('dissolve') as Extract<Step, { kind: 'dissolve' }>),
            picture: { asset: GRID, name: 'grid' },
          };
          for (const [name, value] of Object.entries({ by: 'a picture', softness: 0, edge: 0, amount }))
            setStep(step, name, value);
          layer.look = { kind: 'own', steps: collectionOf([['d', step]]) };
        }),
      );
      const at = (x: number, y: number) => {
        const place = [MIDDLE_X + Math.round(x * METRE), MIDDLE_Y - Math.round(y * METRE)] as const;
        return withIt.at(...place).join() !== without.at(...place).join();
      };
      // Red and green above; blue, and white that is half clear, below.
      return [at(-0.25, 0.25), at(0.25, 0.25), at(-0.25, -0.25), at(0.25, -0.25)];
    };
    expect(await quarters(0)).toEqual([true, true, true, true]);
    expect(await quarters(15)).toEqual([true, true, false, true]);
    expect(await quarters(35)).toEqual([false, true, false, true]);
    expect(await quarters(60)).toEqual([false, true, false, false]);
  });

  test('plays the frames of a grid over its life, by the clock or by number, from any first, blended or not', async () => {
    const book = (
      values: Record<string, string | number | boolean>,
      change: (layer: Layer) => void = () => undefined,
    ) =>
      pictured((step, layer) => {
        setStep(step, 'columns', 2);
        setStep(step, 'rows', 2);
        setStep(step, 'blended', false);
        for (const [name, value] of Object.entries(values)) setStep(step, name, value);
        setNumber(layer, 'births.standing', 0);
        setNumber(layer, 'births.life', 2);
        layer.bursts = collectionOf([
          [
            'b',
            { signal: null, stretch: 'hold', at: 0, count: 1, most: 1, times: 1, every: 1, muted: false } as const,
          ],
        ]);
        change(layer);
      });
    const frameAt = async (effect: Effect, at: number) => nameOf(await seen(effect, 0.1, 0.1, at));
    const life = book({ plays: 'over its life' });
    expect([await frameAt(life, 10), await frameAt(life, 40), await frameAt(life, 70)]).toEqual([
      'red',
      'green',
      'blue',
    ]);
    const twice = book({ plays: 'over its life', times: 2 });
    expect([await frameAt(twice, 5), await frameAt(twice, 20), await frameAt(twice, 65)]).toEqual([
      'red',
      'green',
      'red',
    ]);
    const clock = book({ plays: 'by the clock', rate: 4 });
    expect([await frameAt(clock, 8), await frameAt(clock, 22), await frameAt(clock, 38)]).toEqual([
      'red',
      'green',
      'blue',
    ]);
    expect(await frameAt(book({ plays: 'by its number', frame: 2 }), 30)).toBe('blue');
    expect(await frameAt(book({ plays: 'by its number', frame: 0, first: 25 }), 30)).toBe('green');
    expect(await frameAt(book({ plays: 'over its life', frames: 2 }), 70)).toBe('green');
    const [r, g] = await seen(book({ plays: 'by its number', frame: 0.5, blended: true }), 0.1, 0.1);
    near(r, 0.5, 0.06);
    near(g, 0.5, 0.06);
  });
});
