import type { Curve } from '../../shape/curve';
import type { Point2 } from '../../shape/vector';
import { readDxf } from './dxf';
import { loopsOf, type Profile, ProfileError } from './loops';
import { readSvg } from './svg';

export const LARGEST_PROFILE = 4_000_000;

const MM: Record<Profile['unit'], number> = { mm: 1, cm: 10, m: 1000, in: 25.4, px: 25.4 / 96 };

/**
 * Closed loops of an SVG or DXF drawing, in mm, moved so that the largest begins at 0, 0.
 * @param asked the unit of its numbers, where the maker knows better than the file
 * @throws ProfileError
 */
export function readProfile(
  text: string,
  asked?: { unit?: Profile['unit'] | undefined; width?: number | undefined },
): Profile {
  if (text.length > LARGEST_PROFILE)
    throw new ProfileError('This file is over 4 MB: export only the profile.');
  const svg = /<svg[\s>]/i.test(text.slice(0, 20_000));
  const dxf = !svg && /^\s*(?:0\s*\r?\n\s*SECTION|999\s*\r?\n)/.test(text.slice(0, 2000));
  if (!svg && !dxf)
    throw new ProfileError('This is neither SVG nor DXF in text form. Export the profile as one of these.');
  const { curves, unit: said, notes } = parsed(text, svg);
  if (curves.length === 0) throw new ProfileError('There are no lines in this file that can be used.');
  // An SVG states its own size; a DXF without a unit is read as mm.
  const unit = asked?.unit ?? said ?? (svg ? 'px' : 'mm');
  const factor = svg ? MM[unit] / MM[said ?? 'px'] : MM[unit];
  let scaled = moved(curves, factor, [0, 0]);
  if (asked?.width !== undefined) {
    const [x0, , x1] = loopsOf(scaled, [])[0]!.box;
    scaled = moved(scaled, asked.width / (x1 - x0), [0, 0]);
  }
  const [x0, y0] = loopsOf(scaled, [])[0]!.box;
  const loops = loopsOf(moved(scaled, 1, [-x0, -y0]), notes);
  return { unit, unitSaid: said !== undefined, loops, notes };
}

function moved(curves: readonly Curve[], factor: number, by: Point2): Curve[] {
  const put = ([x, y]: Point2): Point2 => [factor * x + by[0], factor * y + by[1]];
  return curves.map(({ from, to, arc }) => ({
    from: put(from),
    to: put(to),
    ...(arc ? { arc: { ...arc, centre: put(arc.centre), radius: factor * arc.radius } } : {}),
  }));
}

/** Parsers of other people's formats throw all sorts of errors on a broken file. */
function parsed(text: string, svg: boolean) {
  try {
    return svg ? readSvg(text) : readDxf(text);
  } catch (error) {
    if (error instanceof ProfileError) throw error;
    throw new ProfileError('This file cannot be read: export the profile again, as SVG or DXF.', {
      cause: error,
    });
  }
}
