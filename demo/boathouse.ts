import { FIRST_WORKSHOP, type Workshop } from '../core/job/workshop';

/** The practice bench draws a printer's hidden errors from its id: this one makes holes small, soft ones more so. */
const PRINTER = 'printer-1164';

/** The boathouse workshop of a small rowing club on a lake. All of it is invented. */
export const BOATHOUSE: Workshop = {
  ...FIRST_WORKSHOP,
  name: 'The boathouse',
  practiceBench: true,
  instruments: [
    {
      id: 'calipers',
      name: 'Bench calipers',
      kind: 'calipers',
      resolution: 0.01,
      maxError: 0.03,
      jawLand: 0.6,
    },
    {
      id: 'old-calipers',
      name: 'Calipers from the trailer',
      kind: 'calipers',
      resolution: 0.05,
      maxError: 0.1,
    },
    { id: 'rule', name: 'Steel rule', kind: 'rule', resolution: 0.5, maxError: 0.2 },
    { id: 'tape', name: 'Sailmaker’s tape', kind: 'tape', resolution: 1, maxError: 0.5 },
    { id: 'protractor', name: 'School protractor', kind: 'protractor', resolution: 0.5, maxError: 0.5 },
  ],
  printers: [
    {
      id: PRINTER,
      name: 'Workshop printer',
      bed: { width: 220, depth: 220, height: 220 },
      nozzle: 0.4,
      lineWidth: 0.4,
    },
  ],
};

/** The piece was printed in PETG after the first plug had taken two prints; its readings are the practice bench's. */
export const CALIBRATION = {
  daysAgo: 12,
  id: 'petg-fine',
  printerId: PRINTER,
  materialId: 'petg',
  nozzle: 0.4,
  layer: 0.2,
  note: 'three walls, fan at half',
  times: 2,
};
