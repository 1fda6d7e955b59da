// What handing out pictures costs beside drawing them: Fenlight's mantle as PNG of eight bits, 1280x800, through bloom, and
// the same pictures drawn and read back alone, in turns; and how much memory all of the browser takes meanwhile.
import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { cpus, tmpdir } from 'node:os';
import path from 'node:path';
import { parcelOf, writeParcel, type FilmSettings } from '@jinx/core/formats';
import { KIT, lamplitMantle, makeKit } from '@jinx/demo';
import { takeFilmOf } from '../server/parcels/film.ts';
import { imported } from '../server/workers/imported.ts';
import { median, rounded } from './figures.ts';

const ROUNDS = 3;
const SETTINGS: Partial<FilmSettings> = {
  width: 1280,
  height: 800,
  rate: 30,
  from: 1,
  length: 1.5,
  alpha: 'straight',
};
const SAMPLE_MILLISECONDS = 150;

/** Megabytes of memory that all processes of Chromium take by themselves and share among each other. */
function megabytesOfChromium(): number {
  let kilobytes = 0;
  for (const pid of readdirSync('/proc').filter((name) => /^\d+$/.test(name))) {
    try {
      if (!readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes('chromium')) continue;
      kilobytes += Number(/^Pss:\s+(\d+)/m.exec(readFileSync(`/proc/${pid}/smaps_rollup`, 'utf8'))?.[1] ?? 0);
    } catch {
      // It has ended.
    }
  }
  return kilobytes / 1024;
}

const folder = mkdtempSync(path.join(tmpdir(), 'jinx-export-bench-'));
try {
  await makeKit();
  const sedge = await imported(new Uint8Array(readFileSync(new URL('sedge.glb', KIT))), 'sedge.glb');
  const parcel = path.join(folder, 'mantle.zip');
  writeFileSync(parcel, await writeParcel(parcelOf(lamplitMantle(sedge.hash), [sedge])));
  const [exported, alone]: [number[], number[]] = [[], []];
  let peak = 0;
  const sampling = setInterval(() => (peak = Math.max(peak, megabytesOfChromium())), SAMPLE_MILLISECONDS);
  for (let round = 0; round < ROUNDS; round++)
    for (const onlyDraws of [true, false]) {
      const { milliseconds } = await takeFilmOf({ parcel, kind: 'png', settings: SETTINGS, out: folder, onlyDraws });
      (onlyDraws ? alone : exported).push(milliseconds);
    }
  clearInterval(sampling);
  const pictures = SETTINGS.rate! * SETTINGS.length!;
  const each = (all: number[]) => rounded(median(all) / pictures);
  console.log(
    JSON.stringify({
      exportOverhead: rounded(median(exported) / median(alone)),
      peakMegabytes: Math.round(peak),
      exportedMs: each(exported),
      drawnMs: each(alone),
      pictures,
      cores: cpus().length,
    }),
  );
} finally {
  rmSync(folder, { recursive: true, force: true });
}
