import type { Effect } from '@jinx/core/document';
import type { Engine } from '../../engine/engine';
import { answered } from '../../engine/calls';
import { pictureFile } from '../../engine/pictureTaker';
import { putBy } from '../../keeping/tray';
import { plainNumber } from '../entry/numbers';

const [WIDTH, HEIGHT] = [400, 250];

/** Puts a state by with the picture the stage shows of it. */
export async function putStateBy(engine: Engine, id: string, effect: Effect): Promise<void> {
  const seconds = engine.state.sheetTime;
  const picture = await pictureNow(engine);
  await putBy(id, effect, `${effect.name} at ${plainNumber(seconds)} s`.slice(0, 80), Math.max(0, seconds), picture);
}

/** What the stage shows, as large as it is kept. */
async function pictureNow(engine: Engine): Promise<Blob | null> {
  const answer = await answered(engine.stage.barePicture(WIDTH, HEIGHT));
  // A state is kept without its picture rather than not at all.
  return answer && pictureFile(answer.bitmap);
}
