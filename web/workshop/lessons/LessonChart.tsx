import { useCallback } from 'react';
import type { LessonGroup } from '../../../core/work/lesson-groups';
import Chart, { chartLayout } from '../../ui/Chart';
import { colourNow } from '../../ui/use-theme-change';

const HEIGHT = 210;

/** What each job taught, over time, with the band that the next job begins with. */
export default function LessonChart({ group }: { group: LessonGroup }) {
  const traces = useCallback(() => tracesOf(group), [group]);
  return (
    <Chart
      says={
        group.hand === null
          ? `${group.words}: how much tighter than drawn each job's prints came out, over time`
          : `${group.words}: how much earlier than the window says it called “tight” in each job, over time`
      }
      height={HEIGHT}
      traces={traces}
      layout={group.hand === null ? ofPrinter : ofHand}
    />
  );
}

function tracesOf({ evidence, counting, after }: LessonGroup): import('plotly.js').Data[] {
  const dates = evidence.map(e => e.at);
  const ends = [dates[0]!, new Date().toISOString()];
  const band = (value: number, fill?: 'tonexty') => ({
    type: 'scatter' as const,
    mode: 'lines' as const,
    x: ends,
    y: [value, value],
    line: { color: colourNow('right'), width: 0 },
    ...(fill ? { fill, fillcolor: colourNow('right-tint') } : {}),
    hoverinfo: 'skip' as const,
    showlegend: false,
  });
  return [
    band(after.mean - after.sd),
    band(after.mean + after.sd, 'tonexty'),
    {
      type: 'scatter' as const,
      mode: 'markers' as const,
      x: dates,
      y: evidence.map(e => e.mean),
      text: evidence.map(e => e.title),
      error_y: {
        type: 'data' as const,
        array: evidence.map(e => e.sd),
        color: colourNow('strong'),
        thickness: 1,
        width: 2,
      },
      marker: {
        size: 9,
        symbol: evidence.map(e => (counting.includes(e) ? 'circle' : 'x')),
        color: colourNow('blue'),
      },
      hovertemplate: '%{text}<br>%{y:+.2f} mm<extra></extra>',
      showlegend: false,
    },
  ];
}

const dated = (across: string) => () =>
  chartLayout('', across, { xaxis: { type: 'date' }, yaxis: { tickformat: '+.2f' } });
const ofPrinter = dated('tighter than drawn, mm');
const ofHand = dated('“tight” earlier by, mm');
