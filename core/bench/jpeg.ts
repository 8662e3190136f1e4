import jpeg from 'jpeg-js';
import type { Picture } from '../trace/picture';

/** A camera's file of a picture. */
export const jpegOf = ({ width, height, data }: Picture, quality = 90): Uint8Array =>
  new Uint8Array(jpeg.encode({ width, height, data }, quality).data);
