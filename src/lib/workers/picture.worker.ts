import { expose } from 'comlink';
import { pictureOf, type Picture } from '#core/boxes/picture.ts';
import type { BoxWiring } from '#core/job/schema.ts';

const picture = {
  /** @param names of other boxes by their ids */
  layOut: (wiring: BoxWiring, names: Readonly<Record<string, string>>): Promise<Picture> =>
    pictureOf(wiring, (id) => names[id] ?? 'the next box'),
};

export type PictureWorker = typeof picture;
expose(picture);
