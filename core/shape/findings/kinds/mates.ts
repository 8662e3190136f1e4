import { formatPlain } from '../../../quantity/format';
import { define } from '../define';

const mm = (x: number, digits?: number) => formatPlain(x, digits);

/** To a tenth, so that two values that differ do not look alike. */
const strain = (ratio: number) => `${formatPlain(100 * ratio, 1)} %`;

/** A number that one press binds to the ledger again. */
interface Bound extends Record<string, string | number> {
  name: string;
  parameter: string;
  dimension: string;
  model: number;
}
const bind = (f: Bound) => ({
  label: `Use ${mm(f.model)} from the ledger`,
  parameter: f.parameter,
  text: `${f.dimension}.model`,
});

const SLIPS: Record<string, string> = {
  twice: 'twice as much. Was a diameter used where a radius was meant?',
  half: 'half as much. Was a radius typed for a diameter?',
  inches: 'inches and millimetres are mixed up.',
  far: 'these cannot mate. Check the reading and the number.',
};

const unitOf = ({ unit }: { unit: 'mm' | 'deg' }) => (unit === 'deg' ? '°' : ' mm');

/** Findings on the surfaces that must fit, and on sizes against readings. Lengths mm. */
export const mateFindings = {
  /** A mate of the maker's own is not on the solid. @param size mm or degrees of its number */
  'own-mate-not-there': define<{ name: string; size: number; is: 'length' | 'angle' | 'position' | 'flush' }>(
    {
      cost: 'to-know',
      words: f =>
        f.is === 'length'
          ? `“${f.name}”: nothing on the finished solid is ${f.size} mm across where its number moves it. If it is a place and not a size, make it a position; else make another number fit.`
          : f.is === 'angle'
            ? `“${f.name}”: its number turns no two faces of the finished solid against each other. Make another number fit.`
            : `“${f.name}”: its number moves nothing on the finished solid. Make another number fit.`,
    },
  ),
  /** Two pressed faces are not as far apart as the number says. @param size measured */
  'own-mate-off': define<{ name: string; size: number; asked: number; unit: 'mm' | 'deg' }>({
    cost: 'no-fit',
    words: f =>
      `“${f.name}”: where it was pressed the solid has ${formatPlain(f.size, 2)}${unitOf(f)}, and its number makes it ${formatPlain(f.asked, 2)}${unitOf(f)}. Another number moves it too: on Shape, drop it and press its faces again.`,
  }),
  'own-mate-lost': define<{ name: string; asked: number; unit: 'mm' | 'deg' }>({
    cost: 'to-know',
    words: f =>
      `“${f.name}”: the faces that were pressed are not there any more, so its ${formatPlain(f.asked, 2)}${unitOf(f)} could not be measured. Press them again on Shape.`,
  }),
  'mate-missing': define<{ name: string }>({
    cost: 'no-fit',
    words: f => `${f.name}: the solid has no surface there.`,
  }),
  slip: define<Bound & { size: number; reading: number; slip: string }>({
    cost: 'no-fit',
    words: f =>
      `${f.name} measures ${mm(f.size)} on the solid and ${mm(f.reading)} on the object: ${SLIPS[f.slip]}`,
    cure: bind,
  }),
  'mate-off': define<Bound & { size: number }>({
    cost: 'no-fit',
    words: f => `${f.name} measures ${mm(f.size)} on the solid; the ledger asks for ${mm(f.model)}.`,
    cure: bind,
  }),
  'smaller-than-mate': define<{ across: number; model: number }>({
    cost: 'no-fit',
    words: f =>
      `The part is ${mm(f.across)} mm across, less than the ${mm(f.model)} mm of the surface that must fit: that surface is not whole. Look at what was cut away.`,
  }),
  /** @param what the choice @param taken what is drawn until somebody chooses */
  'not-said': define<{ what: string; taken: string }>({
    cost: 'no-fit',
    words: f =>
      `“${f.what}” is not said yet: drawn as “${f.taken}”. Look at the object, and say which it is.`,
  }),
  hand: define<{ found: string; wanted: string }>({
    cost: 'no-fit',
    words: f =>
      `The thread on the solid is ${f.found}-handed; the object’s is ${f.wanted}-handed. It will not go on. Set the hand, or take the mirroring off.`,
  }),
  /** @param than 'larger' or 'smaller' than everything that was read */
  'unit-slip': define<{ x: number; y: number; z: number; read: number; than: string }>({
    cost: 'no-fit',
    words: f => {
      const words = `The part is ${[f.x, f.y, f.z].map(s => mm(s, 1)).join(' × ')} mm, and nothing read of the object is`;
      return f.than === 'larger'
        ? `${words} more than ${mm(f.read, 1)} mm. Was a reading in inches taken as millimetres? Look at the readings and the numbers once more.`
        : `${words} so small: the largest is ${mm(f.read, 1)} mm. Were inches and millimetres mixed up?`;
    },
  }),
  'half-or-double': define<{ height: number; what: string; read: number }>({
    cost: 'to-know',
    words: f =>
      `The part is ${mm(f.height)} mm high, just ${f.height > f.read ? 'twice' : 'half'} what was read as “${f.what}” (${mm(f.read)} mm). If that is chance, leave it; a height drawn to both sides of the middle comes out double.`,
  }),
  /** @param how 'stretches' or 'squeezes' the lip, ratios */
  'lip-strain': define<{ passing: string; how: string; strain: number; limit: number; lip: number }>({
    cost: 'no-fit',
    words: f =>
      `Passing the ${f.passing} ${f.how} the lip by ${strain(f.strain)}; this plastic bears ${strain(f.limit)}. Take a lip of ${mm(f.lip)} mm, or a flexible plastic.`,
  }),
  /** @param most its reading, mm */
  'beyond-reading': define<{ what: string; is: number; read: string; most: number }>({
    cost: 'no-fit',
    words: f =>
      `“${f.what}” is ${mm(f.is)} mm, and “${f.read}” was read as ${mm(f.most)}: it goes against what it must not touch.`,
  }),
  'finger-strain': define<{ passing: string; strain: number; limit: number; deeper: number }>({
    cost: 'no-fit',
    words: f =>
      `Passing the ${f.passing} bends the fingers between the slots by ${strain(f.strain)} at their roots; this plastic bears ${strain(f.limit)}. Slots ${mm(f.deeper, 1)} mm deeper, a thinner wall, or a flexible plastic.`,
  }),
  'not-this-thread': define<{ designation: string; major: number; drawn: number }>({
    cost: 'no-fit',
    words: f =>
      `${f.designation} is ${f.major} mm over its ridges; this one is drawn ${f.drawn.toFixed(2)} mm. One of the two is wrong: look the thread up again, or measure once more.`,
  }),
};
