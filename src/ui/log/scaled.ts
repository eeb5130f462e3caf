import { badInput } from '@/core/plan';

/** The longer side of a photo as it is kept, in pixels; a label on a box can still be read. */
const SIDE = 1600;
const QUALITY = 0.82;
/** A camera makes none larger; what is, is no photo. In bytes. */
const MOST = 60 * 1024 * 1024;

/** A photo as it is kept: scaled down, a JPEG picture, without what the camera wrote into the file. Throws a Refusal. */
export async function scaled(file: File): Promise<Blob> {
  const named = `“${file.name || 'the file'}”`;
  if (file.size > MOST)
    throw badInput(
      `${named} has ${Math.round(file.size / 1024 / 1024)} MB; at most ${MOST / 1024 / 1024} MB are read. Take a smaller photo.`,
      'photo',
    );
  const picture = await createImageBitmap(file).catch(() => {
    throw badInput(`${named} is no picture that this browser reads; take a JPEG or PNG.`, 'photo');
  });
  const scale = Math.min(1, SIDE / Math.max(picture.width, picture.height));
  const canvas = document.createElement('canvas');
  canvas.width = Math.max(1, Math.round(picture.width * scale));
  canvas.height = Math.max(1, Math.round(picture.height * scale));
  canvas.getContext('2d')!.drawImage(picture, 0, 0, canvas.width, canvas.height);
  picture.close();
  return new Promise((resolve, reject) =>
    canvas.toBlob(
      (blob) =>
        blob ? resolve(blob) : reject(badInput(`${named} could not be scaled down; take it again.`, 'photo')),
      'image/jpeg',
      QUALITY,
    ),
  );
}
