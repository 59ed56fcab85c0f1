import { expose } from 'comlink';

/** Longest side of a kept picture, pixels. */
const LONGEST = 1600;
const QUALITY = 0.82;

export interface Shrunk {
  blob: Blob;
  width: number;
  height: number;
}

const pictures = {
  /** Decodes a picture, turned upright, and makes it at most 1,600 pixels long. */
  async shrink(file: Blob): Promise<Shrunk> {
    const bitmap = await createImageBitmap(file, { imageOrientation: 'from-image' });
    const scale = Math.min(1, LONGEST / Math.max(bitmap.width, bitmap.height));
    const width = Math.max(1, Math.round(bitmap.width * scale));
    const height = Math.max(1, Math.round(bitmap.height * scale));
    const canvas = new OffscreenCanvas(width, height);
    canvas.getContext('2d')!.drawImage(bitmap, 0, 0, width, height);
    bitmap.close();
    return { blob: await canvas.convertToBlob({ type: 'image/jpeg', quality: QUALITY }), width, height };
  },
};

export type PicturesWorker = typeof pictures;
expose(pictures);
