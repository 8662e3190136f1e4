import { describe, expect, test } from 'vitest';
import { requireRecipe } from '.';
import type { Parameters } from './recipe';

/** What contradicts itself, by recipe: the change to its demo object, the parameter that is named, part of its words. */
type Row = [change: Parameters, parameter: string, words: RegExp];
const ROWS: Record<string, Row[]> = {
  'round-cap': [
    [{ slots: 6, slotDepth: 13.9 }, 'slotDepth', /run into the end/],
    [{ slots: 16, slotWidth: 5 }, 'slotWidth', /leave little/],
    [{ slots: 6, style: 'into', plugWall: 0 }, 'slots', /solid plug/],
    [{ strap: true, strapThickness: 4 }, 'strapThickness', /thicker than the end/],
    [{ strap: true, strapWidth: 30 }, 'strapWidth', /as wide as the cap/],
  ],
  bush: [
    [{ outsideDiameter: 8.6 }, 'outsideDiameter', /radius typed/],
    [{ style: 'spacer', spacerDiameter: 8 }, 'spacerDiameter', /No wall/],
    [{ leadIn: 2.7 }, 'leadIn', /chamfers meet/],
    [{ endAngle: 40, length: 6 }, 'endAngle', /sloping end/],
    [{ flange: true, flangeThickness: 11 }, 'flangeThickness', /Too little height/],
    [{ length: 1.2 }, 'length', /Too little height/],
  ],
  'stepped-sleeve': [
    [{ rodBore: 19.5 }, 'sleeveDiameter', /radius typed/],
    [{ leadIn: 3.7 }, 'leadIn', /chamfers meet/],
    [{ rodDepth: 30 }, 'rodDepth', /through the collar/],
    [{ rodDepth: 2, leadIn: 1.5 }, 'rodDepth', /too shallow/],
    [{ length: 2, rodDepth: 4, leadIn: 1.2 }, 'length', /too short/],
    [{ through: 15 }, 'through', /no stop/],
  ],
  'profile-part': [
    [{ outline: '0, 0; 10' }, 'outline', /needs x and y/],
    [{ holes: '3, 3' }, 'holes', /x, y and its diameter/],
    [{ widthSize: 40 }, 'widthSize', /more than fit/],
    [{ outline: '0, 0 trim -0.5; 30, 0; 30, 21; 0, 21' }, 'outline', /changes the width/],
    [
      { fits: 'height', outline: '0, 0; 30, 0 trim -3; 30, 21; 0, 21 trim 1' },
      'outline',
      /changes the height/,
    ],
    [{ leadIn: 5, thickness: 4 }, 'leadIn', /whole straight wall/],
    [{ leadIn: 4, outline: '0, 0; 30, 0; 30, 6; 0, 6' }, 'leadIn', /cannot be moved/],
    [{ top: true, straight: 12 }, 'straight', /below the top outline/],
    [{ top: true, topOutline: '3, 1; 27, 1; 15, 18' }, 'topOutline', /both need the same corners/],
    [{ holes: '1, 3, 4' }, 'holes', /breaks through the edge/],
    [{ holes: '10, 8, 4; 12, 8, 4' }, 'holes', /run into each other/],
    [{ holes: '15, 11, 4 deep 11.9' }, 'holes', /floor under/],
    [{ pocket: true, pocketOutline: '0, 3; 24, 3; 24, 6; 0, 6' }, 'pocketOutline', /no wall/],
    [{ pocket: true, pocketDepth: 11.8 }, 'pocketDepth', /floor under/],
    [{ pocket: true, holes: '15, 6, 4' }, 'holes', /pocket’s edge/],
    [{ lip: true, lipWidth: 12 }, 'lipWidth', /cannot be moved/],
  ],
  'socket-knob': [
    [{ gripDiameter: 16 }, 'gripDiameter', /no wall/],
    [{ socketDepth: 14 }, 'socketDepth', /goes through the top/],
    [{ socketDepth: 1 }, 'socketDepth', /too shallow/],
    [{ through: true, height: 2, leadIn: 1.5 }, 'height', /too shallow/],
    [{ socket: 'dee', socketFlats: 17 }, 'socketFlats', /far side/],
    [{ socket: 'dee', socketFlats: 7 }, 'socketFlats', /far side/],
    [{ socket: 'two-flats', socketFlats: 3 }, 'socketFlats', /more than a third/],
    [{ setScrew: true, screwHeight: 1 }, 'screwHeight', /must meet the shaft/],
    [{ setScrew: true, screwHole: 20, screwHeight: 4.5 }, 'screwHole', /too wide/],
    [{ grip: 'flutes', flutes: 48, fluteDepth: 3 }, 'fluteDepth', /no ridge/],
    [{ socket: 'key', keyWidth: 14 }, 'keyWidth', /as wide as the shaft/],
    [{ socket: 'key', overKey: 5 }, 'overKey', /key’s height typed/],
  ],
  'tube-adapter': [
    [{ intoB: 4 }, 'intoB', /no way through/],
    [{ lengthA: 2 }, 'lengthA', /too short/],
    [{ kindA: 'barb', lengthA: 5 }, 'lengthA', /barb needs/],
    [{ leadIn: 1.9 }, 'leadIn', /whole wall/],
    [{ stop: 17 }, 'stop', /closes the way/],
    [{ leastBore: 40 }, 'leastBore', /narrower than asked/],
    [{ middle: 0.5, overA: 60 }, 'middle', /too short/],
    [{ run: 'angle', bendRadius: 10 }, 'bendRadius', /tighter than the tube/],
    [{ run: 'angle', bendAngle: 135, lengthA: 4 }, 'bendAngle', /below the bed/],
    [
      { run: 'angle', bendAngle: 125, lengthA: 80, lengthB: 60, bendRadius: 18 },
      'bendRadius',
      /run into each other/,
    ],
    [{ taperB: 8, lengthB: 200, intoB: 30 }, 'taperB', /tapers to nothing/],
    [{ clickA: true, taperA: 1 }, 'taperA', /taper and click/],
    [{ clickA: true, ridgeA: 33 }, 'ridgeA', /radius typed/],
    [{ clickA: true, ridgeA: 15 }, 'ridgeA', /no room/],
    [{ clickA: true, ridgeAtA: 19.5 }, 'ridgeAtA', /runs out of its end/],
    [{ kindA: 'flange', boltCircle: 34 }, 'boltCircle', /cut into the tube/],
    [{ kindA: 'flange', flangeDiameter: 66 }, 'flangeDiameter', /break through/],
    [{ kindA: 'flange', bolts: 16, boltHole: 12, flangeDiameter: 90 }, 'bolts', /run into each other/],
  ],
  'threaded-cover': [
    [{ ridge: 20, coverThread: 40 }, 'ridge', /diameter typed/],
    [{ foot: 12.5 }, 'foot', /fills the whole pitch/],
    [{ foot: 2 }, 'foot', /flanks meet/],
    [{ length: 4 }, 'length', /too short/],
    [{ seal: 2.6 }, 'seal', /through the end/],
    [{ wall: 1 }, 'wall', /flutes cut/],
    [{ coverThread: 20, ridge: 1, flutes: 40 }, 'flutes', /run into each other/],
  ],
  'plate-adapter': [
    [{ acrossB: 40, deepB: 28 }, 'shift', /run into each other/],
    [{ acrossA: 4 }, 'acrossA', /run into each other/],
    [{ corners: 40 }, 'corners', /cut into a hole/],
  ],
  'hinge-leaf': [
    [{ reach: 5, holes: 0 }, 'reach', /beyond the barrel/],
    [{ reach: 9 }, 'reach', /do not fit on the plate/],
    [{ holes: 8 }, 'holes', /fewer, or a longer leaf/],
    [{ plate: 8 }, 'plate', /sink into it/],
  ],
  'drive-blade': [
    [{ bladeWidth: 13 }, 'bladeWidth', /would not pass/],
    [{ tip: 'square', thickness: 10 }, 'thickness', /would not pass/],
    [{ bladeWidth: 4 }, 'bladeWidth', /swapped/],
    [{ head: 12 }, 'head', /wider than the shank/],
  ],
  'screw-handle': [
    [{ pitch: 20 }, 'pitch', /no room between/],
    [{ pilot: 12 }, 'pilot', /no wall in the foot/],
    [{ pilotDepth: 39.5 }, 'pilotDepth', /out of the top/],
  ],
  cradle: [
    [{ clearLeft: 30 }, 'clearLeft', /runs out at its top/],
    [{ clearLeft: 20, clearLeftFrom: 0, clearRight: 16, clearRightFrom: 18 }, 'clearLeft', /no height/],
    [{ stand: 'foot', window: 77 }, 'window', /both sides standing/],
    [{ lip: 30, pocketWidth: 50, window: 10 }, 'lip', /meet before the face/],
    [{ window: 80 }, 'window', /wider than the pocket/],
    [{ height: 10 }, 'height', /one above the other/],
    [{ pocketWidth: 8, window: 0, lip: 1, screwHole: 5, height: 60 }, 'screwHole', /too wide/],
  ],
  'tube-clip': [
    [{ style: 'clamp', slit: 14 }, 'slit', /nothing is left/],
    [{ style: 'clamp', earThickness: 20 }, 'earThickness', /as wide as the ring/],
    [{ style: 'clamp', boltHole: 14 }, 'length', /wider than the clamp/],
    [{ ears: 3 }, 'ears', /beside the clip/],
    [{ length: 5 }, 'length', /wider than the clip is long/],
    [{ stand: 10 }, 'stand', /do not meet the foot/],
  ],
  'rim-fork': [
    [{ mouth: 9 }, 'mouth', /swapped/],
    [{ deep: 4 }, 'deep', /too shallow/],
    [{ lead: 12, deep: 60 }, 'lead', /whole arm/],
    [{ height: 6 }, 'height', /wider than the fork is high/],
    [{ slot: 1.5, mouth: 1, arm: 1.4 }, 'arm', /wider than the fork/],
  ],
  'tool-block': [
    [{ pitch: 13 }, 'pitch', /run into each other/],
    [{ blade: 12.7 }, 'blade', /narrower than the upper/],
    [{ step: 29 }, 'step', /outside the block/],
    [{ floor: 28 }, 'floor', /fills the block/],
    [{ blade: 0, height: 10, lean: 45, floor: 1 }, 'height', /leans so far/],
  ],
  'board-tray': [
    [{ boardSlot: 43 }, 'boardSlot', /does not go into this tube/],
    [{ below: 20 }, 'below', /no tray is left/],
    [{ rail: 24 }, 'rail', /stand out of the tube/],
    [{ below: 6 }, 'below', /turning over/],
    [{ floor: 4 }, 'floor', /comes out of the tray/],
    [{ pull: 32 }, 'pull', /wider than the tray/],
    [{ endWall: 40 }, 'endWall', /fills the tray/],
  ],
  'wall-plate': [
    [{ headHole: 4.7 }, 'headHole', /falls off/],
    [{ drop: 4 }, 'drop', /never leaves its hole/],
    [{ pitch: 9 }, 'pitch', /run into each other/],
    [{ width: 60 }, 'width', /narrower than its screws/],
    [{ height: 20 }, 'height', /lower than its holes/],
    [{ corners: 30 }, 'corners', /rounder/],
  ],
};

describe.each(Object.entries(ROWS))('%s refuses', (id, rows) => {
  const recipe = requireRecipe(id);
  test.each(rows)('%j', (change, parameter, words) => {
    const p = { ...recipe.demo.parameters, ...change };
    const finding = recipe.refuse(p).find(f => f.parameter === parameter && words.test(f.message));
    expect(
      recipe.refuse(p).map(f => [f.parameter, f.message]),
      'what it said',
    ).toContainEqual([finding?.parameter, finding?.message]);
    if (!finding?.remedy) return;
    // The button mends what it stands beside; another contradiction may be left.
    const mended = { ...p, [finding.remedy.parameter]: Number(finding.remedy.text) };
    const left = recipe.refuse(mended).filter(f => f.parameter === parameter && words.test(f.message));
    expect(left, `after ${finding.remedy.label}`).toEqual([]);
  });
});
