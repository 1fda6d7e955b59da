import { Frame } from '@jinx/core/simulation';
import { extentOf } from './extent.ts';
import type { FromStage, StageQuestion } from './protocol.ts';
import type { Stage } from './stage.ts';

type Answer = readonly [message: FromStage, transfer: Transferable[]];

/** Answers a question; one that cannot be answered is refused. */
export async function answerTo(question: StageQuestion, stage: Stage): Promise<Answer> {
  try {
    return await answerOf(question, stage);
  } catch (error) {
    const sentence = `The stage could not answer: ${(error as Error).message}`;
    return [{ kind: 'refused', id: question.id, sentence }, []];
  }
}

async function answerOf(question: StageQuestion, stage: Stage): Promise<Answer> {
  const { id } = question;
  switch (question.kind) {
    case 'pixels': {
      const { width, height } = question;
      const { buffer } = stage.pixels(width, height, performance.now()).data;
      return [{ kind: 'pixels', id, width, height, rgba: new Uint8Array(buffer) }, [buffer]];
    }
    case 'picture': {
      const { width, height, instant } = question;
      const frame = instant && new Frame(instant.buffer);
      const bitmap = await createImageBitmap(stage.pixels(width, height, performance.now(), frame));
      return [{ kind: 'picture', id, bitmap }, [bitmap]];
    }
    case 'particlePictures': {
      const pictures = await stage.particlePictures(question);
      const bitmap = pictures && (await createImageBitmap(pictures));
      return [{ kind: 'particlePictures', id, bitmap }, bitmap ? [bitmap] : []];
    }
    case 'pixel':
      return [{ kind: 'pixel', id, pixel: stage.probe.take(question.x, question.y) }, []];
    case 'seenAt':
      return [{ kind: 'seenAt', id, salts: stage.probe.layersAt(question.x, question.y) }, []];
    case 'extent':
      return [{ kind: 'extent', id, extent: stage.frame && extentOf(stage.frame, question.salts) }, []];
    case 'pixelSteps': {
      const { x, y, salt } = question;
      return [{ kind: 'pixelSteps', id, steps: await stage.probe.steps(x, y, salt) }, []];
    }
    case 'time':
      return [{ kind: 'time', id, milliseconds: drawTimes(stage, question.times) }, []];
  }
}

/** Milliseconds of each of `times` whole pictures. */
export function drawTimes(stage: Stage, times: number): number[] {
  return Array.from({ length: times }, () => {
    const start = performance.now();
    stage.draw(start, true);
    stage.finish();
    return performance.now() - start;
  });
}
