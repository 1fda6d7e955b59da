import { existsSync, readFileSync } from 'node:fs';

/** Where the pictures of what is shipped lie: of effects by their names, of the kit by its files. */
export const PICTURES = new URL('./pictures/', import.meta.url);

const KINDS = { effect: 'effects', kit: 'kit' } as const;

/** The file of a picture: "effects/salt-ward.webp" of Salt Ward. */
export const pictureFileOf = (kind: keyof typeof KINDS, name: string): URL =>
  new URL(
    `${KINDS[kind]}/${name
      .replace(/\.\w+$/, '')
      .toLowerCase()
      .replaceAll(' ', '-')}.webp`,
    PICTURES,
  );

/** The picture of an effect or of a file of the kit; null of what has none. */
export function shippedPicture(kind: keyof typeof KINDS, name: string): Uint8Array | null {
  const file = pictureFileOf(kind, name);
  return existsSync(file) ? new Uint8Array(readFileSync(file)) : null;
}

/** Which documents the pictures of the effects show: the hash of the canonical text of each, by its name. */
export const PICTURED = new URL('pictured.json', PICTURES);
