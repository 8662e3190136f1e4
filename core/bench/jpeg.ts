import jpeg from 'jpeg-js';
import type { Picture } from '../trace/picture';

/** A picture as a camera's file. */
export const jpegOf = ({ width, height, data }: Picture, quality = 90): Uint8Array =>
  new Uint8Array(jpeg.encode({ width, height, data }, quality).data);
