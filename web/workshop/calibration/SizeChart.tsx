import { useCallback } from 'react';
import { printedAt, type Response } from '../../../core/calibration/profile';
import type { SizeKind } from '../../../core/calibration/size-kind';
import Chart, { chartLayout } from '../../ui/Chart';
import { colourNow } from '../../ui/use-theme-change';
import { KIND_WORDS } from './kind-words';

/** Each kind has a shape as well as a colour. */
const MARKS: Record<SizeKind, { symbol: string; colour: string }> = {
  hole: { symbol: 'circle-open', colour: 'blue' },
  slot: { symbol: 'square-open', colour: 'blue-2' },
  peg: { symbol: 'circle', colour: 'tight' },
  rib: { symbol: 'square', colour: 'loose' },
  height: { symbol: 'triangle-up', colour: 'right' },
};
const HEIGHT = 330;

/** The error of each size, over the size: readings with their uncertainty, and each kind's line. */
export default function SizeChart({ responses }: { responses: readonly Response[] }) {
  const drawn = useCallback(() => traces(responses), [responses]);
  return (
    <Chart
      says="Error of each printed size over the drawn size, with a line for each kind"
      height={HEIGHT}
      traces={drawn}
      layout={layout}
    />
  );
}

function traces(responses: readonly Response[]): import('plotly.js').Data[] {
  return responses.flatMap(response => {
    const { symbol, colour } = MARKS[response.kind];
    const name = KIND_WORDS[response.kind];
    const sizes = response.rows.map(r => r.drawn);
    const [low, high] = [Math.min(...sizes), Math.max(...sizes)];
    const along = Array.from({ length: 21 }, (_, i) => low + ((high - low) * i) / 20);
    return [
      {
        type: 'scatter' as const,
        mode: 'lines' as const,
        x: along,
        y: along.map(x => printedAt(response, x).mean - x),
        line: { color: colourNow(colour), width: 1.5 },
        legendgroup: name,
        showlegend: false,
        hoverinfo: 'skip' as const,
      },
      {
        type: 'scatter' as const,
        mode: 'markers' as const,
        name,
        legendgroup: name,
        x: sizes,
        y: response.rows.map(r => r.printed - r.drawn),
        text: response.rows.map(r => r.label),
        error_y: {
          type: 'data' as const,
          array: response.rows.map(r => 2 * r.u),
          color: colourNow('strong'),
          thickness: 1,
          width: 2,
        },
        marker: { symbol, size: 9, color: colourNow(colour), line: { width: 1.6, color: colourNow(colour) } },
        hovertemplate: '%{text}<br>printed %{y:+.3f} mm<extra></extra>',
      },
    ];
  });
}

const layout = () =>
  chartLayout('drawn size, mm', 'printed larger by, mm', {
    xaxis: { rangemode: 'tozero' },
    yaxis: { tickformat: '+.2f', zeroline: true },
  });
