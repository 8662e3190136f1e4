import { differenceInDays, format } from 'date-fns';
import { Plus, Trash2 } from 'lucide-react';
import { useState } from 'react';
import styled from 'styled-components';
import { ulid } from 'ulid';
import {
  AGES_AFTER_DAYS,
  biasAt,
  type CalibrationRow,
  readCalibration,
  responseOf,
  writeCalibration,
} from '../../core/fit/calibrate';
import type { Side } from '../../core/fit/wants';
import type { Calibration, Workshop } from '../../core/job/workshop';
import { formatPlain, formatSigned } from '../../core/quantity/format';
import { Button, IconButton, Select, TextField } from '../ui/controls';
import { Notice, Panel, Row } from '../ui/layout';
import { FONTS } from '../ui/theme';

interface Props {
  workshop: Workshop;
  onChange(calibrations: Calibration[]): void;
  /** Whether some lines cannot be understood: they are kept here and hold up the saving. */
  onUnread(id: string, unread: boolean): void;
}

/** What printed pieces taught of each printer with each plastic; the ledger starts from it. */
export function CalibrationPanel({ workshop, onChange, onUnread }: Props) {
  const all = workshop.calibrations ?? [];
  return (
    <Panel>
      <Row $between $wrap>
        <h2>Calibrated printers</h2>
        <Button
          $small
          aria-label="Add to calibrated printers"
          onPress={() =>
            onChange([
              ...all,
              {
                id: ulid(),
                printerId: workshop.printers[0]!.id,
                materialId: workshop.materials[0]!.id,
                at: new Date().toISOString(),
                note: '',
                rows: [],
              },
            ])
          }
        >
          <Plus size={15} /> Add
        </Button>
      </Row>
      <p className="soft" style={{ fontSize: 14, margin: '2px 0 8px' }}>
        Print a few holes and pegs of different sizes, let them cool, read them. Three sizes or more give a
        line; the ledger then starts from this printer with this plastic instead of common practice.
      </p>
      {all.map(c => (
        <Item
          key={c.id}
          calibration={c}
          workshop={workshop}
          onChange={to => onChange(all.map(x => (x.id === c.id ? { ...x, ...to } : x)))}
          onRemove={() => {
            onUnread(c.id, false);
            onChange(all.filter(x => x.id !== c.id));
          }}
          onUnread={unread => onUnread(c.id, unread)}
        />
      ))}
    </Panel>
  );
}

interface ItemProps {
  calibration: Calibration;
  workshop: Workshop;
  onChange(to: Partial<Calibration>): void;
  onRemove(): void;
  onUnread(unread: boolean): void;
}

function Item({ calibration, workshop, onChange, onRemove, onUnread }: ItemProps) {
  const [text, setText] = useState(() => writeCalibration(calibration.rows));
  const { rows, problems } = readCalibration(text);
  const age = differenceInDays(new Date(), new Date(calibration.at));
  return (
    <Box>
      <div>
        <Fields>
          <Select
            label="Calibrated printer"
            value={calibration.printerId}
            options={workshop.printers.map(p => ({ value: p.id, label: p.name }))}
            onChange={printerId => onChange({ printerId })}
          />
          <Select
            label="With"
            value={calibration.materialId}
            options={workshop.materials.map(m => ({ value: m.id, label: m.name }))}
            onChange={materialId => onChange({ materialId })}
          />
        </Fields>
        <TextField
          label="Settings"
          value={calibration.note}
          onChange={note => onChange({ note })}
          maxLength={300}
          placeholder="0.4 nozzle, 0.2 layers, no hole compensation"
        />
        <div style={{ marginTop: 8 }}>
          <TextField
            label="What was drawn and what was read, mm"
            value={text}
            rows={6}
            onChange={typed => {
              setText(typed);
              const now = readCalibration(typed);
              onUnread(now.problems.length > 0);
              if (now.problems.length === 0) onChange({ rows: now.rows, at: new Date().toISOString() });
            }}
            placeholder={'hole 8 7.78\nhole 20 19.75\noutside 12 12.06'}
            hint="A line each: hole or outside, the drawn size, the printed one."
            problem={problems[0] ? `Line ${problems[0].line}: ${problems[0].message}` : undefined}
            spellCheck="false"
          />
        </div>
      </div>
      <div>
        <Row $between>
          <span className="soft" style={{ fontSize: 13.5 }}>
            {format(new Date(calibration.at), 'd MMM yyyy')}
          </span>
          <IconButton aria-label="Remove this calibration" onPress={onRemove}>
            <Trash2 size={16} />
          </IconButton>
        </Row>
        <Answer side="inside" rows={rows} />
        <Answer side="outside" rows={rows} />
        {rows.length > 0 ? <Chart rows={rows} /> : null}
        {age > AGES_AFTER_DAYS ? (
          <Notice level="warn">
            {age} days old: nozzles wear and spools differ. Print one hole and one peg and see whether they
            still agree.
          </Notice>
        ) : null}
      </div>
    </Box>
  );
}

function Answer({ side, rows }: { side: Side; rows: readonly CalibrationRow[] }) {
  const own = rows.filter(r => r.side === side);
  const response = responseOf(own);
  if (!response) return <p className="soft">{side === 'inside' ? 'No hole' : 'No outside'} read yet.</p>;
  const middle = own.reduce((sum, r) => sum + r.drawn, 0) / own.length;
  const { mean, sd } = biasAt(response, middle, side);
  const small = side === 'inside' ? mean : -mean;
  return (
    <Line data-testid={`response-${side}`}>
      <b>{side === 'inside' ? 'Holes' : 'Outsides'}</b> print {formatPlain(Math.abs(small), 3)} mm{' '}
      {small >= 0 ? 'small' : 'large'} at {formatPlain(middle, 0)} mm, give or take {formatPlain(2 * sd, 3)}
      {response.scale.sd > 0
        ? `: printed = ${formatPlain(response.scale.mean, 4)} × drawn ${formatSigned(response.offset.mean)}`
        : '; read three sizes to learn how it goes with size'}
      {response.residualSd === null ? '.' : `, scatter ${formatPlain(response.residualSd, 3)} mm.`}
    </Line>
  );
}

const WIDTH = 420;
const HEIGHT = 150;

/** How far each was off, over its size, with the line through them. */
function Chart({ rows }: { rows: readonly CalibrationRow[] }) {
  const off = (r: { drawn: number; printed: number }) => r.printed - r.drawn;
  const most = Math.max(...rows.map(r => r.drawn)) * 1.08;
  const reach = 1.25 * Math.max(0.05, ...rows.map(r => Math.abs(off(r))));
  const x = (drawn: number) => 44 + (drawn / most) * (WIDTH - 56);
  const y = (error: number) => HEIGHT / 2 - 8 - (error / reach) * (HEIGHT / 2 - 18);
  return (
    <Svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      role="img"
      aria-label="Error of each printed size over the drawn size"
    >
      <line x1={44} x2={WIDTH - 8} y1={y(0)} y2={y(0)} className="axis" />
      {[reach / 1.25, -reach / 1.25].map(v => (
        <text key={v} x={40} y={y(v) + 4} textAnchor="end">
          {formatSigned(v)}
        </text>
      ))}
      <text x={40} y={y(0) + 4} textAnchor="end">
        0
      </text>
      {(['inside', 'outside'] as const).map(side => {
        const own = rows.filter(r => r.side === side);
        const response = responseOf(own);
        if (!response) return null;
        const at = (d: number) => y((response.scale.mean - 1) * d + response.offset.mean);
        const [a, b] = [Math.min(...own.map(r => r.drawn)), Math.max(...own.map(r => r.drawn))];
        return (
          <g key={side} className={side}>
            <line x1={x(a)} y1={at(a)} x2={x(b)} y2={at(b)} />
            {own.map((r, i) =>
              side === 'inside' ? (
                <circle key={i} cx={x(r.drawn)} cy={y(off(r))} r={4} />
              ) : (
                <rect key={i} x={x(r.drawn) - 4} y={y(off(r)) - 4} width={8} height={8} />
              ),
            )}
          </g>
        );
      })}
      <text x={WIDTH - 8} y={HEIGHT - 4} textAnchor="end">
        drawn size, mm; error in mm: holes round, outsides square
      </text>
    </Svg>
  );
}

const Box = styled.div`
  display: grid; grid-template-columns: minmax(0, 1fr) minmax(0, 1fr); gap: 20px; border-top: 1px solid var(--rule); padding: 10px 0;
  textarea { font-family: ${FONTS.number}; }
  @media (max-width: 760px) { grid-template-columns: minmax(0, 1fr); }
`;
const Fields = styled.div`display: grid; grid-template-columns: 1fr 1fr; gap: 10px; margin-bottom: 8px;`;
const Line = styled.p`font-size: 14.5px; margin-bottom: 6px;`;
const Svg = styled.svg`
  width: 100%; max-width: 480px; display: block; margin: 6px 0;
  .axis { stroke: var(--soft); } text { font: 11.5px ${FONTS.number}; fill: var(--soft); }
  .inside { stroke: var(--blue); } .inside circle { fill: var(--blue); } .outside { stroke: var(--tight); } .outside rect { fill: var(--tight); } g line { stroke-width: 1.5; }
`;
