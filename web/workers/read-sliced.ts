import { GcodeError, type GcodeFile } from '../../core/print/gcode/file';
import { GcodeReader } from '../../core/print/gcode/reader';

/** Progress on a file is reported every so many bytes. */
const PROGRESS = 4e6;

/** Reads the file as a stream: it may be larger than memory. */
export async function readSliced(
  file: File,
  progress: (share: number) => void,
): Promise<{ ok: true; gcode: GcodeFile } | { ok: false; message: string }> {
  const reader = new GcodeReader();
  try {
    let [done, told] = [0, 0];
    const stream = file.stream().getReader();
    for (let piece = await stream.read(); !piece.done; piece = await stream.read()) {
      reader.push(piece.value);
      done += piece.value.length;
      if (done - told < PROGRESS) continue;
      told = done;
      progress(done / file.size);
    }
    return { ok: true, gcode: reader.end() };
  } catch (error) {
    if (error instanceof GcodeError) return { ok: false, message: error.message };
    throw error;
  }
}
