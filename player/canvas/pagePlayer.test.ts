import { describe, expect, it } from 'vitest';
import type { EffectInfo } from '../api.ts';
import type { FromPlayer, ToPlayer } from '../runtime/messages.ts';
import { turnedView } from './orbit.ts';
import { PagePlayer } from './pagePlayer.ts';

const INFO: EffectInfo = {
  name: 'Lamp',
  licence: '',
  opening: 0,
  hold: { kind: 'none', seconds: 0 },
  closing: 1,
  dials: [
    { kind: 'number', name: 'Charge', least: 0, most: 1, value: 0 },
    { kind: 'place', name: 'Aim', value: [0, 0, 0] },
  ],
  signals: ['Flash'],
  camera: null,
};

/** A player whose worker is this test. */
function withWorker() {
  const told: ToPlayer[] = [];
  let hear: (event: { data: FromPlayer }) => void = () => undefined;
  let isClosed = false;
  const worker = {
    postMessage: (order: ToPlayer) => void told.push(order),
    addEventListener: (kind: string, heard: never) => void (kind === 'message' && (hear = heard)),
  };
  const end = { worker: worker as never, close: () => void (isClosed = true) };
  const player = new PagePlayer({} as HTMLCanvasElement, end, false, {});
  const say = (data: FromPlayer) => hear({ data });
  const load = async () => {
    const loading = player.load(new Uint8Array([1]));
    await Promise.resolve();
    const order = told.at(-1) as { id: number };
    say({ kind: 'loaded', id: order.id, licence: 'x', effects: [INFO] });
    return loading;
  };
  return { player, told, say, load, isClosed: () => isClosed };
}

describe('the page’s end of a player', () => {
  it('tells what is played, and refuses what an effect does not have, by name', async () => {
    const { load, told } = withWorker();
    const loaded = await load();
    expect(() => loaded.play('Moth')).toThrow('this parcel has no effect "Moth"; it has: "Lamp"');
    expect(() => loaded.play(0, { dials: { Charg: 1 } })).toThrow(/no dial "Charg"; its dials are: "Charge", "Aim"/);
    const playing = loaded.play('Lamp', { at: [1, 0, 0] });
    expect(told.at(-1)).toMatchObject({ kind: 'play', effect: 0, options: { at: [1, 0, 0] } });
    playing.setDial('Aim', [1, 2, 3]);
    expect(told.at(-1)).toMatchObject({ order: { kind: 'dial', name: 'Aim', value: [1, 2, 3] } });
    expect(() => playing.setDial('Aim', 1)).toThrow('the dial "Aim" is three numbers');
    expect(() => playing.setDial('Charge', NaN)).toThrow('the dial "Charge" is a number');
    expect(() => playing.signal('Flas')).toThrow('it listens to: Flash');
    expect(() => playing.seek(NaN)).toThrow(/seconds/);
    playing.seek(1.5);
    expect(told.at(-1)).toMatchObject({ order: { kind: 'seek', step: 90 } });
  });

  it('hears what happens to each, until it listens no more', async () => {
    const { load, told, say } = withWorker();
    const playing = (await load()).play();
    const { playing: number } = told.at(-1) as { playing: number };
    const heard: number[] = [];
    const end = playing.on('ended', ({ seconds }) => heard.push(seconds));
    say({ kind: 'event', playing: number, event: 'ended', told: { seconds: 2 } });
    say({ kind: 'event', playing: number + 9, event: 'ended', told: { seconds: 3 } });
    end();
    say({ kind: 'event', playing: number, event: 'ended', told: { seconds: 4 } });
    expect(heard).toEqual([2]);
  });

  it('fails what waits, and all after it, when the worker cannot go on', async () => {
    const { player, load, say, isClosed } = withWorker();
    const playing = (await load()).play();
    const faults: string[] = [];
    player.onFault((sentence) => faults.push(sentence));
    const waiting = playing.state();
    say({ kind: 'failed', sentence: 'no WebGL 2' });
    await expect(waiting).rejects.toThrow('no WebGL 2');
    await expect(player.pixels(1, 1)).rejects.toThrow('no WebGL 2');
    expect([faults, isClosed()]).toEqual([['no WebGL 2'], true]);
  });

  it('says what a parcel is refused for, and where one cannot be fetched', async () => {
    const { player, told, say } = withWorker();
    const loading = player.load(new Uint8Array([1]));
    await Promise.resolve();
    say({ kind: 'refused', id: (told.at(-1) as { id: number }).id, sentence: 'this is not a parcel' });
    await expect(loading).rejects.toThrow('this is not a parcel');
    await expect(player.load('http://localhost:1/x.zip')).rejects.toThrow(
      'The parcel at http://localhost:1/x.zip cannot be had: nothing answers there.',
    );
  });
});

describe('the camera', () => {
  it('goes round its target and stays as far, never over the top', () => {
    const view = { position: [0, 1, 4], target: [0, 1, 0], fieldOfView: 34 } as const;
    const side = turnedView(view, -Math.PI / 2, 0, 1);
    side.position.forEach((x, axis) => expect(x).toBeCloseTo([4, 1, 0][axis]!, 6));
    expect(turnedView(view, 0, 9, 1).position[1]).toBeLessThan(5);
    expect(turnedView(view, 0, 0, 0.5).position[2]).toBeCloseTo(2, 6);
    expect(turnedView(view, 0, 0, 1e-9).position[2]).toBeCloseTo(0.3, 6);
  });
});
