import { useQuery, useQueryClient } from '@tanstack/react-query';
import { Download } from 'lucide-react';
import { useState } from 'react';
import styled from 'styled-components';
import { JobChange } from '../../contract/jobs';
import { Plate, type Queue } from '../../contract/queue';
import { GAP } from '../../core/print/plate/rows';
import { formatHours, formatPlain } from '../../core/quantity/format';
import { parseQuantity } from '../../core/quantity/parse';
import { get, post } from '../api/client';
import { fetchAnew } from '../api/fetch-anew';
import { TakesFigures } from '../stages/print/TakesFigures';
import { Button, Select, TextField } from '../ui/controls';
import { FileLink } from '../ui/FileLink';
import { Notice, Panel, Row } from '../ui/layout';
import { FONTS } from '../ui/theme';
import type { Choice } from './wishes';

type How = 'no' | 'yes';
const HOW: { value: How; label: string }[] = [
  { value: 'no', label: 'all at once, layer by layer' },
  { value: 'yes', label: 'one after the other' },
];

/** The chosen pieces on their beds: their places, time and plastic, the file, and recording the print. */
export function PlatePanel({
  choices,
  printers,
  onPrinted,
}: {
  choices: readonly Choice[];
  printers: Queue['printers'];
  onPrinted(): void;
}) {
  const client = useQueryClient();
  const [inTurn, setInTurn] = useState<How>('no');
  const [sending, setSending] = useState(false);
  const [said, setSaid] = useState<string | null>(null);
  const printer = printers.find(p => p.id === choices[0]?.printerId);
  const how: How = printer?.inTurn ? inTurn : 'no';
  const [apart, setApart] = useState('');
  const gap = apart.trim() === '' ? null : parseQuantity(apart, 'length');
  const gapProblem = gap && !gap.ok ? gap.message : undefined;
  const query = `of=${choices.map(c => c.wish).join(',')}&inTurn=${how}${gap?.ok ? `&apart=${gap.quantity.value}` : ''}`;
  const plate = useQuery({
    queryKey: ['plate', query],
    queryFn: () => get(`/queue/plate?${query}`, Plate),
    enabled: choices.length > 0,
    placeholderData: before => before,
    retry: false,
  });
  if (choices.length === 0)
    return (
      <Panel>
        <h2>On one bed</h2>
        <p className="soft" style={{ marginTop: 8 }}>
          {said ?? 'Choose what to print together: it is laid out here, with its time and its file.'}
        </p>
      </Panel>
    );
  const prints = choices.flatMap(c => c.prints);
  /** The chosen pieces go on the printer now. */
  const begun = async () => {
    setSending(true);
    setSaid(null);
    try {
      for (const { jobId, ...body } of prints) await post(`/jobs/${jobId}/starts`, JobChange, body);
      onPrinted();
    } catch (error) {
      setSaid((error as Error).message);
    } finally {
      setSending(false);
      await fetchAnew(client, 'queue');
    }
  };
  const printed = async () => {
    setSending(true);
    setSaid(null);
    let done = 0;
    try {
      for (const { jobId, ...body } of prints) {
        await post(`/jobs/${jobId}/prints`, JobChange, body);
        done++;
      }
      setSaid(`${done === 1 ? 'It is' : `${done} are`} in the logbooks: try each on.`);
      onPrinted();
    } catch (error) {
      setSaid(`${done > 0 ? `${done} are recorded; then: ` : ''}${(error as Error).message}`);
    } finally {
      setSending(false);
      await fetchAnew(client, 'queue');
    }
  };
  /** Rings and gauges are noted on Fit. */
  const counted = prints.length > 0;
  const beds = plate.error ? [] : (plate.data?.beds ?? []);
  return (
    <Panel aria-label="Plate" aria-busy={plate.isFetching}>
      <Row $between $wrap>
        <h2>{beds.length > 1 ? `On ${beds.length} beds` : 'On one bed'}</h2>
        <Row $gap={10} $wrap style={{ alignItems: 'flex-end' }}>
          <div style={{ width: 110 }}>
            <TextField
              label="Apart, mm"
              value={apart}
              onChange={setApart}
              placeholder={how === 'yes' ? 'as the head needs' : String(GAP)}
              problem={gapProblem}
            />
          </div>
          {printer?.inTurn ? (
            <Select label="How" hideLabel value={how} options={HOW} onChange={(to: How) => setInTurn(to)} />
          ) : null}
        </Row>
      </Row>
      {plate.error ? <Notice level="warn">{plate.error.message}</Notice> : null}
      {plate.isPending ? (
        <p className="soft" role="status" style={{ marginTop: 8 }}>
          Laying them out…
        </p>
      ) : null}
      {plate.data && !plate.error
        ? plate.data.left.map(l => (
            <Notice key={l.name} level="warn">
              {l.pieces} of “{l.name}” {l.pieces === 1 ? 'lies' : 'lie'} on no bed of this printer: lay it
              another way, or split it.
            </Notice>
          ))
        : null}
      {plate.data && !plate.error
        ? beds.map(({ pieces, takes, lost }, i) => (
            <Bed key={i}>
              <BedPicture bed={plate.data.bed} pieces={pieces} />
              <div>
                <TakesFigures
                  takes={takes}
                  beside={`${pieces.length} ${pieces.length === 1 ? 'piece' : 'pieces'}`}
                />
                <p className="soft">
                  {how === 'yes'
                    ? `One that comes loose costs ${formatHours(lost.hours)} at most; the others stand.`
                    : pieces.length > 1
                      ? `One that comes loose may cost all of it: ${formatHours(takes.hours)}, ${formatPlain(takes.grams, 0)} g.`
                      : ''}
                </p>
                <FileLink href={`/api/queue/plate.3mf?${query}&bed=${i}`} download>
                  <Download size={15} aria-hidden /> 3MF{beds.length > 1 ? `, bed ${i + 1}` : ''}
                </FileLink>
                <Names>
                  {pieces.map((p, n) => (
                    <li key={n}>{p.name}</li>
                  ))}
                </Names>
              </div>
            </Bed>
          ))
        : null}
      {printer && !printer.inTurn && beds.some(b => b.pieces.length > 1) ? (
        <p className="soft" style={{ fontSize: 14, marginTop: 10 }}>
          Say in the workshop what room this printer’s head needs, then they can also be printed one after the
          other.
        </p>
      ) : null}
      <Row $wrap style={{ marginTop: 12 }}>
        {counted ? (
          <>
            <Button
              $look="main"
              isDisabled={sending || plate.isPending || beds.length === 0}
              onPress={() => void printed()}
            >
              {sending ? 'Recording…' : choices.length === 1 ? 'It is printed' : 'They are printed'}
            </Button>
            <Button isDisabled={sending || plate.isPending || beds.length === 0} onPress={() => void begun()}>
              {choices.length === 1 ? 'It is on the printer now' : 'They are on the printer now'}
            </Button>
          </>
        ) : (
          <p className="soft">Once printed, say on Fit how each ring felt, and what the gauge measures.</p>
        )}
        {said ? <span role="status">{said}</span> : null}
      </Row>
    </Panel>
  );
}

function BedPicture({ bed, pieces }: { bed: Plate['bed']; pieces: Plate['beds'][number]['pieces'] }) {
  return (
    <svg
      viewBox={`-2 -2 ${bed.width + 4} ${bed.depth + 4}`}
      role="img"
      aria-label={`${pieces.length} pieces on a bed of ${bed.width} × ${bed.depth} mm`}
    >
      {/* The bed's front is below: y runs upwards there. */}
      <g transform={`translate(0 ${bed.depth}) scale(1 -1)`}>
        <rect
          width={bed.width}
          height={bed.depth}
          fill="var(--raised)"
          stroke="var(--rule)"
          strokeWidth={1}
        />
        {pieces.map((p, i) => (
          <polygon
            key={i}
            points={p.outline.map(([x, y]) => `${x.toFixed(1)},${y.toFixed(1)}`).join(' ')}
            fill="var(--tint)"
            stroke="var(--blue)"
            strokeWidth={1}
          >
            <title>{p.name}</title>
          </polygon>
        ))}
      </g>
      {pieces.map((p, i) => {
        const [x, y] = middle(p.outline);
        return (
          <text key={i} x={x} y={bed.depth - y} textAnchor="middle" dominantBaseline="central">
            {i + 1}
          </text>
        );
      })}
    </svg>
  );
}

const middle = (outline: readonly (readonly [number, number])[]): [number, number] => {
  const xs = outline.map(p => p[0]);
  const ys = outline.map(p => p[1]);
  return [(Math.min(...xs) + Math.max(...xs)) / 2, (Math.min(...ys) + Math.max(...ys)) / 2];
};

const Bed = styled.div`
  display: grid; grid-template-columns: minmax(0, 1.1fr) minmax(0, 1fr); gap: 14px; margin-top: 12px; align-items: start; font-size: 14px;
  svg { width: 100%; display: block; } text { font: 600 9px ${FONTS.number}; fill: var(--blue); }
  > div { display: flex; flex-direction: column; gap: 8px; align-items: flex-start; }
  @media (max-width: 520px) { grid-template-columns: 1fr; }
`;
const Names = styled.ol`margin: 0; padding-left: 22px; color: var(--soft); li { overflow-wrap: anywhere; padding: 1px 0; }`;
