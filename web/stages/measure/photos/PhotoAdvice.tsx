import { Advice } from '../Advice';

/** How to take a photo for measuring. Common practice, no source. */
const ADVICE = [
  [
    'Print, and read both bars',
    'Printers shrink and stretch. Read the bar across and the bar along with calipers and type both: a sheet printed at 97 % is as good as any.',
  ],
  ['Flat sheet', 'Tape its four corners to a board. A page that curls by a millimetre is wrong by a tenth.'],
  [
    'From above, from afar',
    'Hold the phone level over the object, at 40 to 50 cm, and zoom in twice until the sheet fills the picture.',
  ],
  [
    'Soft light from all sides',
    'By a window on a dull day, or under two lamps. A hard shadow hides the edge that it lies on.',
  ],
  [
    'White or shiny things',
    'Lay them on the sheet with the dark middle, or dull them with talc; or use the flatbed scanner, face down.',
  ],
  [
    'Thicker than 15 mm',
    'Its own walls hide its edges. Lay it face down on a flatbed scanner, and read its holes with calipers.',
  ],
] as const;

export const PhotoAdvice = ({ open = false }: { open?: boolean }) => (
  <Advice summary="How to take a photo that can be measured on" advice={ADVICE} open={open} />
);
