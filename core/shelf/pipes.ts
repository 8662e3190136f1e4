/** True outside diameters of pipes, tubes and hoses: what a caliper reads, not their nominal sizes. mm. */
export const PIPES: readonly {
  family: string;
  standard: string;
  obtained: string;
  /** ± mm on the outside. */
  tolerance: number;
  sizes: readonly { name: string; outside: number; bore?: number }[];
}[] = [
  {
    family: 'steel pipe',
    standard: 'ISO 4200 (EN 10255)',
    obtained: 'from memory',
    tolerance: 0.4,
    sizes: list(
      'DN6 10.2, DN8 13.5, DN10 17.2, DN15 21.3, DN20 26.9, DN25 33.7, DN32 42.4, DN40 48.3, DN50 60.3, DN65 76.1, DN80 88.9, DN100 114.3, DN125 139.7, DN150 168.3',
    ),
  },
  {
    family: 'inch pipe',
    standard: 'ASME B36.10',
    obtained: 'from memory',
    tolerance: 0.4,
    sizes: list(
      'NPS 1/8 10.3, NPS 1/4 13.7, NPS 3/8 17.1, NPS 1/2 21.3, NPS 3/4 26.7, NPS 1 33.4, NPS 1-1/4 42.2, NPS 1-1/2 48.3, NPS 2 60.3, NPS 2-1/2 73.0, NPS 3 88.9, NPS 3-1/2 101.6, NPS 4 114.3, NPS 5 141.3, NPS 6 168.3',
    ),
  },
  {
    family: 'plastic pipe',
    standard: 'ISO 161-1',
    obtained: 'from memory',
    tolerance: 0.3,
    sizes: list(
      '10 10, 12 12, 16 16, 20 20, 25 25, 32 32, 40 40, 50 50, 63 63, 75 75, 90 90, 110 110, 125 125, 140 140, 160 160, 180 180, 200 200',
    ),
  },
  {
    family: 'copper tube',
    standard: 'EN 1057',
    obtained: 'from memory',
    tolerance: 0.07,
    sizes: list('6 6, 8 8, 10 10, 12 12, 15 15, 18 18, 22 22, 28 28, 35 35, 42 42, 54 54'),
  },
  {
    family: 'inch copper tube',
    standard: 'ASTM B88 (outside is the name plus 1/8 in)',
    obtained: 'from memory',
    tolerance: 0.07,
    sizes: inches(
      '1/4 0.375, 3/8 0.5, 1/2 0.625, 5/8 0.75, 3/4 0.875, 1 1.125, 1-1/4 1.375, 1-1/2 1.625, 2 2.125',
    ),
  },
  {
    family: 'conduit',
    standard: 'EN 60423',
    obtained: 'from memory',
    tolerance: 0.4,
    sizes: list('16 16, 20 20, 25 25, 32 32, 40 40, 50 50, 63 63'),
  },
  {
    family: 'garden hose',
    standard: 'common practice, no source',
    obtained: 'from memory; bores are as called, outsides differ between makers',
    tolerance: 1,
    sizes: [
      { name: '1/2 in', bore: 12.7, outside: 17.5 },
      { name: '5/8 in', bore: 15.9, outside: 21 },
      { name: '3/4 in', bore: 19, outside: 25 },
      { name: '1 in', bore: 25.4, outside: 33 },
    ],
  },
  {
    family: 'bilge and drain hose',
    standard: 'common practice, no source',
    obtained: 'from memory; the bore is as called and stretches a little',
    tolerance: 1.5,
    sizes: [
      { name: '16 mm', bore: 16, outside: 20 },
      { name: '19 mm', bore: 19, outside: 24 },
      { name: '25 mm', bore: 25, outside: 31 },
      { name: '28 mm', bore: 28.6, outside: 35 },
      { name: '38 mm', bore: 38, outside: 45 },
    ],
  },
  {
    family: 'vacuum hose cuff',
    standard: 'common practice, no source',
    obtained: 'from memory; tapered about 1 mm',
    tolerance: 0.7,
    sizes: list('32 mm 32, 35 mm 35, 38 mm 38, 1-1/4 in 31.75, 1-1/2 in 38.1, 2-1/2 in 57.2'),
  },
];

function list(text: string): { name: string; outside: number }[] {
  return text.split(',').map(entry => {
    const words = entry.trim().split(/\s+/);
    return { name: words.slice(0, -1).join(' '), outside: Number(words.at(-1)) };
  });
}

function inches(text: string) {
  return list(text).map(({ name, outside }) => ({
    name: `${name} in`,
    outside: Number((outside * 25.4).toFixed(2)),
  }));
}
