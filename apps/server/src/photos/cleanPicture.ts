import { say } from '@heathstep/core';
import sharp from 'sharp';
import { PHOTO_LIMITS } from '@heathstep/contracts';
import { ProblemError } from '../http/problem.js';

export interface CleanPicture {
  readonly bytes: Buffer;
  readonly type: 'image/jpeg' | 'image/png';
  readonly width: number;
  readonly height: number;
}

const notAPicture = (): ProblemError =>
  new ProblemError(415, say('This is not a picture that can be read'), {
    detail: say('Choose a JPEG or PNG picture; what the file is called does not count'),
  });

/**
 * Reads a picture by its content, turns it the right way up, makes it at most 2400 pixels on a side, and writes it anew,
 * so that nothing of where, when and with what it was taken is left. Anything but a whole JPEG or PNG is refused.
 */
export async function cleanPicture(bytes: Buffer): Promise<CleanPicture> {
  const options = { limitInputPixels: PHOTO_LIMITS.pixels, failOn: 'error' } as const;
  try {
    const { format } = await sharp(bytes, options).metadata();
    if (format !== 'jpeg' && format !== 'png') throw notAPicture();
    const upright = sharp(bytes, options).rotate().resize({
      width: PHOTO_LIMITS.side,
      height: PHOTO_LIMITS.side,
      fit: 'inside',
      withoutEnlargement: true,
    });
    const written = format === 'png' ? upright.png() : upright.jpeg({ quality: 88 });
    const { data, info } = await written.toBuffer({ resolveWithObject: true });
    return {
      bytes: data,
      type: format === 'png' ? 'image/png' : 'image/jpeg',
      width: info.width,
      height: info.height,
    };
  } catch (error) {
    if (error instanceof ProblemError) throw error;
    throw notAPicture();
  }
}
