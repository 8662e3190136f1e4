import aruco from 'js-aruco2';
import 'js-aruco2/src/dictionaries/aruco_5x5_1000.js';

/** The markers on the sheet: the first hundred of the dictionary, five by five cells in a dark border. */
export const [CELLS, MARKERS] = [5, 100];
/** With more wrong cells than this it is another marker, or none: the hundred differ by more than twice as many. */
const WRONG_CELLS = 2;

const { AR } = aruco;
const NAME = 'SHEET';
const whole = AR.DICTIONARIES.ARUCO_5X5_1000;
if (!whole) throw new Error('The dictionary of markers did not load.');
AR.DICTIONARIES[NAME] = { ...whole, codeList: whole.codeList.slice(0, MARKERS) };

const dictionary = new AR.Dictionary(NAME);

/** Which cells of a marker are light, row by row from its top left one. */
export const lightCells = (id: number): readonly boolean[] =>
  [...dictionary.codeList[id]!].map(bit => bit === '1');

export const newDetector = () => new AR.Detector({ dictionaryName: NAME, maxHammingDistance: WRONG_CELLS });
