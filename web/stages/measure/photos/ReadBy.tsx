import type { Trace, TraceBy } from '../../../../core/job/traces';
import { Button, Select } from '../../../ui/controls';
import { Notice, Panel, Row, Stack } from '../../../ui/layout';
import { SizeField } from '../../../ui/SizeField';
import { FlatbedFields, LengthFields, NEW_LENGTH, Pair, SheetFields } from './ReadFields';

interface Props {
  trace: Trace;
  onChange(change: { by?: TraceBy; thickness?: number; broken?: number; tolerance?: number }): unknown;
  onPressCorners(): void;
  /** For the two ends of a length. @param line which length */
  onPressEnds(line: number): void;
}

type Way = 'a4 white' | 'letter white' | 'a4 dark' | 'letter dark' | 'flatbed' | 'rectangle' | 'dimensions';

const WAYS: { value: Way; label: string }[] = [
  { value: 'a4 white', label: 'the sheet, A4' },
  { value: 'letter white', label: 'the sheet, Letter' },
  { value: 'a4 dark', label: 'the sheet with a dark middle, A4' },
  { value: 'letter dark', label: 'the sheet with a dark middle, Letter' },
  { value: 'flatbed', label: 'a flatbed scanner' },
  { value: 'rectangle', label: 'a rectangle of known size in it' },
  { value: 'dimensions', label: 'one or two lengths on it' },
];

/** A card of ISO/IEC 7810 ID-1: 85.60 × 53.98. */
const CARD = { width: 85.6, height: 53.98 };

/** What gives a photo its scale. */
export function ReadBy({ trace, onChange, onPressCorners, onPressEnds }: Props) {
  const { by } = trace;
  const f35 = by.kind === 'flatbed' ? undefined : by.f35;
  const lens = f35 === undefined ? {} : { f35 };
  const choose = (way: Way) => {
    if (way === 'flatbed')
      return onChange({ by: { kind: 'flatbed', dpi: { x: 300, y: 300 }, from: 'above' }, thickness: 0 });
    if (way === 'rectangle') {
      onChange({
        by: {
          kind: 'rectangle',
          corners: [
            [0, 0],
            [100, 0],
            [100, 60],
            [0, 60],
          ],
          ...CARD,
          ...lens,
        },
      });
      return onPressCorners();
    }
    if (way === 'dimensions') {
      onChange({ by: { kind: 'dimensions', lines: [NEW_LENGTH], ...lens } });
      return onPressEnds(0);
    }
    const [paper, middle] = way.split(' ') as ['a4' | 'letter', 'white' | 'dark'];
    const bars = by.kind === 'sheet' && by.bars ? { bars: by.bars } : {};
    onChange({ by: { kind: 'sheet', paper, middle, ...bars, ...lens } });
  };
  return (
    <Panel>
      <h2>How its sizes are known</h2>
      <Stack $gap={8}>
        <Select<Way>
          label="By"
          value={by.kind === 'sheet' ? `${by.paper} ${by.middle}` : by.kind}
          options={WAYS}
          onChange={choose}
        />
        {by.kind === 'sheet' ? <SheetFields by={by} onChange={next => onChange({ by: next })} /> : null}
        {by.kind === 'flatbed' ? <FlatbedFields by={by} onChange={next => onChange({ by: next })} /> : null}
        {by.kind === 'rectangle' ? (
          <>
            <Pair>
              <SizeField
                label="Its width"
                value={by.width}
                least={5}
                most={2000}
                onCommit={width => void onChange({ by: { ...by, width } })}
              />
              <SizeField
                label="Its height"
                value={by.height}
                least={5}
                most={2000}
                onCommit={height => void onChange({ by: { ...by, height } })}
              />
            </Pair>
            <Row $gap={8}>
              <Button $small onPress={onPressCorners}>
                Press on its four corners
              </Button>
            </Row>
            <p className="soft">
              One after the other round it, the width first. A card is good to half a millimetre: the sheet is
              far surer.
            </p>
          </>
        ) : null}
        {by.kind === 'dimensions' ? (
          <LengthFields by={by} onChange={next => onChange({ by: next })} onPressEnds={onPressEnds} />
        ) : null}
        {by.kind === 'flatbed' ? null : (
          <Pair>
            <SizeField
              label="How thick the object is"
              value={trace.thickness}
              least={0}
              most={60}
              onCommit={thickness => void onChange({ thickness })}
            />
            <SizeField
              label="Its edges are broken by"
              value={trace.broken}
              least={0}
              most={5}
              onCommit={broken => void onChange({ broken })}
            />
          </Pair>
        )}
        {by.kind !== 'flatbed' && trace.thickness === 0 ? (
          <Notice level="warn">
            Read its thickness with calipers and type it: what stands up from the sheet shows larger than it
            is.
          </Notice>
        ) : null}
        {by.kind !== 'flatbed' && trace.thickness > 0 ? (
          <p className="soft">
            Does some of its outline stand higher or lower than that, a rim or a flange? Press on that side or
            hole, and type how high its edge is.
          </p>
        ) : null}
        {by.kind !== 'flatbed' && by.f35 === undefined ? (
          <p className="soft">
            The file does not say its focal length: that does for things up to 3 mm thick. For thicker ones
            type it under More.
          </p>
        ) : null}
        <details>
          <summary className="soft">More</summary>
          <Stack $gap={8}>
            {by.kind === 'flatbed' ? null : (
              <SizeField
                label="Focal length in terms of 35 mm film"
                value={by.f35 ?? null}
                least={5}
                most={500}
                onCommit={next => void onChange({ by: { ...by, f35: next } })}
              />
            )}
            <SizeField
              label="Edges may scatter by"
              value={trace.tolerance}
              least={0.01}
              most={1}
              onCommit={tolerance => void onChange({ tolerance })}
            />
          </Stack>
        </details>
      </Stack>
    </Panel>
  );
}
