import { formatPlain } from '../../../quantity/format';
import { type Finding, finding } from '../../findings/finding';
import { has, type P, slottedWall } from './parameters';
import { sizesOf } from './solid';

/** Less material than this between two faces is a mistake rather than a wall: mm. */
const LEAST_LAND = 0.3;

/** Contradictions, each with the parameter to change. Passing them does not mean that the kernel can build it. */
export function refuse(p: P): Finding[] {
  const s = sizesOf(p);
  const findings: Finding[] = [];
  const stop = (parameter: keyof P, message: string, value?: number) =>
    findings.push(
      finding(
        'cannot-build',
        'stop',
        { why: message, make: value ?? 0 },
        {
          parameter,
          ...(value !== undefined && value > 0
            ? {
                remedy: {
                  label: `Make it ${formatPlain(value)} mm`,
                  parameter,
                  text: String(Number(value.toFixed(2))),
                },
              }
            : {}),
        },
      ),
    );

  const mouths = [
    ...(s.skirt ? [{ land: s.skirt.outer - s.skirt.inner, depth: s.skirt.top - s.end }] : []),
    ...(s.plug ? [{ land: s.plug.outer - s.plug.inner, depth: s.plug.top - s.end }] : []),
  ];
  const land = Math.min(...mouths.map(m => m.land));
  const depth = Math.min(...mouths.map(m => m.depth));
  if (s.leadIn > Math.min(land, depth) - LEAST_LAND) {
    stop(
      'leadIn',
      `A lead-in of ${formatPlain(s.leadIn)} takes the whole wall of ${formatPlain(land)}: the mouth would be a knife edge.`,
      Math.max(0, Math.floor(10 * (Math.min(land, depth) - LEAST_LAND)) / 10),
    );
  }
  const outerHeight = s.skirt ? s.skirt.top : s.end;
  if (s.fillet > Math.min(outerHeight, s.rim) - LEAST_LAND) {
    stop(
      'outerFillet',
      'The outer fillet is larger than the edge it rounds.',
      Math.max(0, outerHeight - LEAST_LAND),
    );
  } else if (s.skirt && cornerWall(s) < LEAST_LAND) {
    stop(
      'outerFillet',
      'The outer fillet cuts through the corner between end and skirt.',
      Math.min(s.end, s.skirt.outer - s.skirt.inner),
    );
  }
  if (s.plug) {
    if (p.plugWall !== 0 && s.plug.inner <= 0) {
      stop('plugWall', 'The plug’s wall is more than its radius: 0 makes it solid.');
    }
    if (s.plug.outer > s.rim - LEAST_LAND && !s.skirt) {
      stop(
        'endDiameter',
        'The flange must be wider than the plug, or the plug falls in.',
        2 * s.plug.outer + 4,
      );
    }
    if (s.skirt && s.plug.outer > s.skirt.inner - LEAST_LAND) {
      stop(
        'plugDiameter',
        'The plug is as wide as the skirt: no wall of the object fits between them. Was a radius typed for a diameter?',
      );
    }
  }
  if (s.ridge) refuseRidge(p, s.ridge, stop);
  if (has.tab(p) && p.tabWidth / 2 > Math.min(s.rim, p.tabLength + s.rim) - LEAST_LAND) {
    stop('tabWidth', 'The tab is wider than the cap.', Math.floor(1.5 * s.rim));
  }
  if (has.tab(p) && p.tabLength < p.tabWidth / 2) {
    stop(
      'tabLength',
      'The tab’s round end is longer than the tab: make it longer or narrower.',
      p.tabWidth / 2 + 1,
    );
  }
  if (s.slots) refuseSlots(p, s, stop);
  if (s.strap && s.strap.thickness > s.end) {
    stop('strapThickness', 'The strap is thicker than the end it grows from.', s.end);
  }
  if (s.strap && s.strap.half > 0.4 * s.rim) {
    stop('strapWidth', 'The strap is nearly as wide as the cap.', Math.max(2, 0.6 * s.rim));
  }
  return findings;

  function refuseRidge(
    at: P,
    ridge: NonNullable<typeof s.ridge>,
    say: (parameter: keyof P, message: string, value?: number) => void,
  ) {
    const inward = has.lip(at);
    const wall = inward ? s.skirt!.inner : s.plug!.outer;
    const top = (inward ? s.skirt!.top : s.plug!.top) - s.leadIn;
    const stands = inward ? wall - ridge.radius : ridge.radius - wall;
    const parameter = inward ? 'lipDiameter' : 'beadDiameter';
    if (stands < 0.05) {
      say(
        parameter,
        inward
          ? 'The lip does not stand in from the skirt: it must be smaller than the skirt.'
          : 'The bead does not stand out from the plug: it must be larger than the plug.',
      );
    } else if (inward && s.plug && ridge.radius < s.plug.outer + LEAST_LAND) {
      say(parameter, 'The lip touches the plug.');
    } else if (ridge.from < s.end) {
      say(
        'lipFrom',
        'The lip sits too near the end: its slope would run into the end’s inner face.',
        stands + 0.1,
      );
    } else if (ridge.lead > top) {
      say(
        inward ? 'skirtDepth' : 'plugDepth',
        `The lip’s slope needs ${formatPlain(ridge.lead - s.end + s.leadIn)} of depth; there is ${formatPlain(top + s.leadIn - s.end)}.`,
        ridge.lead - s.end + s.leadIn + 0.1,
      );
    }
  }
}

function refuseSlots(
  p: P,
  s: ReturnType<typeof sizesOf>,
  say: (parameter: keyof P, message: string, value?: number) => void,
): void {
  const { slots } = s;
  if (!slots) return;
  if (has.lipSlots(p)) {
    const pitch = (2 * Math.PI * Math.min(slots.inner, slots.outer)) / slots.count;
    if (slots.width > pitch / 2)
      say('slotWidth', 'The slots leave little of the lip: narrower, or fewer.', Math.max(0.5, pitch / 3));
    return;
  }
  const inPlug = slottedWall(p) === 'plug';
  if (inPlug && (s.plug!.inner <= 0 || slots.inner < 0.5)) {
    say('slots', 'A solid plug does not give: give it a wall, or leave the slots out.');
    return;
  }
  const wall = inPlug ? s.plug! : s.skirt!;
  if (slots.from < s.end + 0.4) {
    say(
      'slotDepth',
      'The slots run into the end: leave some wall whole.',
      Math.floor(10 * (wall.top - s.end - 1)) / 10,
    );
  }
  // Of each piece of wall between two slots, at least as much must remain as is cut away.
  const pitch = 2 * Math.max(0, slots.inner) * Math.sin(Math.PI / Math.max(2, slots.count));
  if (slots.width > pitch / 2) {
    say('slotWidth', 'The slots leave little of the wall: narrower, or fewer.', Math.max(0.5, pitch / 3));
  }
  if (!inPlug && s.plug && slots.inner < s.plug.outer + LEAST_LAND) {
    say('slots', 'The slots would cut the plug as well: leave them out, or make the plug smaller.');
  }
  if (inPlug && s.skirt && slots.outer > s.skirt.inner - LEAST_LAND) {
    say('slots', 'The slots would cut the skirt as well: leave them out, or make the plug smaller.');
  }
}

/** Material left between the fillet and the inner corner of skirt and end. */
function cornerWall(s: ReturnType<typeof sizesOf>): number {
  const dx = s.skirt!.inner - (s.rim - s.fillet);
  const dz = s.fillet - s.end;
  // Only when the inner corner is in the fillet's own quarter is the arc the nearest face.
  return dx > 0 && dz > 0 ? s.fillet - Math.hypot(dx, dz) : Math.min(s.end, s.skirt!.outer - s.skirt!.inner);
}
