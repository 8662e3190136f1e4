import type { TraceBy } from '../../../../core/job/traces';
import { BAR } from '../../../../core/trace/sheet/layout';
import { Button, Select } from '../../../ui/controls';
import { Notice, Row } from '../../../ui/layout';
import { SizeField } from '../../../ui/SizeField';

/** The fields for each way of scaling a photo. */

/** Until its ends are pressed. */
export const NEW_LENGTH = { from: [0, 0] as [number, number], to: [100, 0] as [number, number], length: 50 };

export function SheetFields({
  by,
  onChange,
}: {
  by: Extract<TraceBy, { kind: 'sheet' }>;
  onChange(by: TraceBy): unknown;
}) {
  const bars = by.bars ?? { across: BAR, along: BAR };
  return (
    <>
      <Pair>
        <SizeField
          label="The bar across, as read"
          value={bars.across}
          least={70}
          most={280}
          onCommit={across => void onChange({ ...by, bars: { ...bars, across } })}
        />
        <SizeField
          label="The bar along, as read"
          value={bars.along}
          least={70}
          most={280}
          onCommit={along => void onChange({ ...by, bars: { ...bars, along } })}
        />
      </Pair>
      {by.bars ? null : (
        <Notice
          level="warn"
          action={
            <Button $small onPress={() => void onChange({ ...by, bars: { across: BAR, along: BAR } })}>
              Both are {BAR}
            </Button>
          }
        >
          Nobody read the bars of this sheet: until then sizes may be off by 3 %.
        </Notice>
      )}
    </>
  );
}

export function LengthFields({
  by,
  onChange,
  onPressEnds,
}: {
  by: Extract<TraceBy, { kind: 'dimensions' }>;
  onChange(by: TraceBy): unknown;
  onPressEnds(line: number): void;
}) {
  const { lines } = by;
  return (
    <>
      {lines.map((line, i) => (
        <Pair key={i}>
          <SizeField
            label={i === 0 ? 'The length, as read' : 'The one across it, as read'}
            value={line.length}
            least={5}
            most={2000}
            onCommit={length => void onChange({ ...by, lines: lines.with(i, { ...line, length }) })}
          />
          <Button $small onPress={() => onPressEnds(i)}>
            Press on its two ends
          </Button>
        </Pair>
      ))}
      <Row $gap={8}>
        {lines.length === 1 ? (
          <Button
            $small
            onPress={async () => {
              await onChange({ ...by, lines: [...lines, NEW_LENGTH] });
              onPressEnds(1);
            }}
          >
            Add one across it
          </Button>
        ) : (
          <Button $small $look="quiet" onPress={() => void onChange({ ...by, lines: lines.slice(0, 1) })}>
            Only the first
          </Button>
        )}
      </Row>
      <p className="soft">
        Between two places on its upper face, read with calipers.{' '}
        {lines.length === 1
          ? 'One length alone holds only for a photo taken square on, from straight above: add one across it.'
          : 'Take the photo from straight above all the same: nothing shows how far it leans.'}{' '}
        For thin things only; the sheet is far surer.
      </p>
    </>
  );
}

export function FlatbedFields({
  by,
  onChange,
}: {
  by: Extract<TraceBy, { kind: 'flatbed' }>;
  onChange(by: TraceBy): unknown;
}) {
  const { dpi, known } = by;
  const scale = known ?? { x: 1, y: 1 };
  const field = (label: string, value: number, least: number, most: number, put: (v: number) => TraceBy) => (
    <SizeField label={label} value={value} least={least} most={most} onCommit={v => void onChange(put(v))} />
  );
  return (
    <>
      <Pair>
        {field('Pixels of an inch, across', dpi.x, 50, 9600, x => ({ ...by, dpi: { ...dpi, x } }))}
        {field('Pixels of an inch, along', dpi.y, 50, 9600, y => ({ ...by, dpi: { ...dpi, y } }))}
      </Pair>
      <Pair>
        {field('True over scanned size, across', scale.x, 0.5, 2, x => ({ ...by, known: { ...scale, x } }))}
        {field('True over scanned size, along', scale.y, 0.5, 2, y => ({ ...by, known: { ...scale, y } }))}
      </Pair>
      <Select
        label="Drawn as"
        value={by.from}
        options={[
          { value: 'above', label: 'seen from above, as it lay' },
          { value: 'glass', label: 'the face that lay on the glass' },
        ]}
        onChange={from => void onChange({ ...by, from })}
      />
    </>
  );
}

export const Pair = ({ children }: { children: React.ReactNode }) => (
  <div style={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 10, alignItems: 'end' }}>
    {children}
  </div>
);
