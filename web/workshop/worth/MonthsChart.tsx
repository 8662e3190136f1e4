import { format } from 'date-fns';
import { useCallback } from 'react';
import type { Month } from '../../../core/work/months';
import Chart, { chartLayout } from '../../ui/Chart';
import { colourNow } from '../../ui/use-theme-change';

const HEIGHT = 220;

export interface Bars {
  name: string;
  colour: 'blue' | 'loose' | 'right' | 'strong';
  of(month: Month): number;
}

interface Props {
  says: string;
  unit: string;
  months: readonly Month[];
  /** Stacked, or side by side with `beside`. */
  bars: readonly Bars[];
  beside?: boolean;
}

/** A day of it, wherever the reader is. */
const dayOf = ({ month }: Month) => new Date(`${month}-15`);

/** “December 2025 to November 2026”. */
const spanOf = (months: readonly Month[]) =>
  [months[0], months.at(-1)].flatMap(m => (m ? format(dayOf(m), 'MMMM yyyy') : [])).join(' to ');

/** Amounts by month. */
export default function MonthsChart({ says, unit, months, bars, beside = false }: Props) {
  const traces = useCallback(
    (): import('plotly.js').Data[] =>
      bars.map(({ name, colour, of }) => ({
        type: 'bar' as const,
        name,
        x: months.map(m => format(dayOf(m), 'MMM')),
        y: months.map(of),
        marker: { color: colourNow(colour) },
        hovertemplate: `%{y:.3~g} ${unit}<extra>${name}</extra>`,
      })),
    [months, bars, unit],
  );
  const layout = useCallback(
    () => ({
      ...chartLayout(spanOf(months), unit, { xaxis: { type: 'category' } }),
      barmode: beside ? ('group' as const) : ('stack' as const),
      bargap: 0.35,
    }),
    [unit, beside, months],
  );
  return <Chart says={says} height={HEIGHT} traces={traces} layout={layout} />;
}
