import Plotly from 'plotly.js-basic-dist-min';
import { useEffect, useRef } from 'react';
import { FONTS } from './theme';
import { colourNow, useThemeChange } from './use-theme-change';

interface Props {
  /** In words, for whoever does not see it. */
  says: string;
  height: number;
  /** Asked again when the theme changes, since the colours do. */
  traces(): import('plotly.js').Data[];
  layout(): Partial<import('plotly.js').Layout>;
}

/** A chart in the colours of the page. */
export default function Chart({ says, height, traces, layout }: Props) {
  const box = useRef<HTMLDivElement>(null);
  const theme = useThemeChange();
  // biome-ignore lint/correctness/useExhaustiveDependencies: the chart's colours change with the theme
  useEffect(() => {
    const element = box.current;
    if (!element) return;
    void Plotly.newPlot(element, traces(), layout(), { displayModeBar: false, responsive: true });
    return () => Plotly.purge(element);
  }, [traces, layout, theme]);
  return <div ref={box} role="img" aria-label={says} style={{ height }} />;
}

/** What all charts have in common. */
export function chartLayout(
  x: string,
  y: string,
  { xaxis = {}, yaxis = {} }: { xaxis?: object; yaxis?: object } = {},
): Partial<import('plotly.js').Layout> {
  const axis = {
    gridcolor: colourNow('grid'),
    zerolinecolor: colourNow('strong'),
    linecolor: colourNow('rule'),
    tickfont: { family: FONTS.number, size: 12, color: colourNow('soft') },
  };
  const title = (text: string) => ({
    text,
    font: { family: FONTS.text, size: 13.5, color: colourNow('soft') },
  });
  return {
    paper_bgcolor: 'rgba(0,0,0,0)',
    plot_bgcolor: 'rgba(0,0,0,0)',
    font: { family: FONTS.text, size: 13.5, color: colourNow('ink') },
    margin: { l: 62, r: 12, t: 8, b: 44 },
    xaxis: { ...axis, title: title(x), ...xaxis },
    yaxis: { ...axis, title: title(y), ...yaxis },
    legend: { orientation: 'h', y: 1.12, x: 0 },
    hoverlabel: { font: { family: FONTS.text } },
  };
}
