import { zodResolver } from '@hookform/resolvers/zod';
import { useRef, useState } from 'react';
import { useForm } from 'react-hook-form';
import styled from 'styled-components';
import { z } from 'zod';
import { formatPlain } from '../../../../core/quantity/format';
import type { Sized } from '../../../../core/trace/doubt';
import { SIDES, type Side } from '../../../../core/trace/overlay/sides';
import { kernelLine } from '../../../solid/kernel-worker';
import type { OpenTrace } from '../../../trace/use-trace';
import { Button, Select } from '../../../ui/controls';
import { FormField } from '../../../ui/FormField';
import { Notice, Panel, Row, Stack } from '../../../ui/layout';
import type { ShownLaid, ShownPiece, ShownTrace } from '../../../workers/trace-protocol';
import { numberProblem, valueFor } from '../../number-field';
import { signed } from '../AgainstScale';
import { NOT_BUILT, useComparedPart } from '../compared-part';

const SIDE_WORDS: Record<Side, string> = {
  top: 'its top',
  bottom: 'its underside',
  front: 'its front',
  back: 'its back',
  right: 'its right',
  left: 'its left',
};
const BEST = 'best';
/** With a smaller share of the outline near the part it is another thing. */
const LEAST_OVERLAP = 0.5;
/** The most differences that are listed. */
const MOST_LISTED = 8;

const amount = (most: number) =>
  z
    .string()
    .superRefine((text, context) => {
      const message = numberProblem(text, -most, most);
      if (message) context.addIssue({ code: 'custom', message });
    })
    .transform(text => valueFor(text) ?? 0);
/** How far the part was moved over the picture by hand: mm, degrees. */
const Moved = z.object({ across: amount(300), up: amount(300), turn: amount(360) });
const STILL = { across: '0', up: '0', turn: '0' };

interface Props {
  shown: ShownTrace;
  laid: ShownLaid | null;
  ask: OpenTrace['ask'];
  onLaid(laid: ShownLaid | null): void;
  onPick(piece: ShownPiece): void;
}

/** The part's outline over the photo at true size: of the object before printing, of the print afterwards. */
export function LaidPanel({ shown, laid, ask, onLaid, onPick }: Props) {
  const [side, setSide] = useState<Side | typeof BEST>(BEST);
  const [said, setSaid] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  /** The newest question: a late answer does not bring back what was removed meanwhile. */
  const newest = useRef(0);
  const takeOff = () => {
    newest.current++;
    setBusy(false);
    onLaid(null);
  };
  const { spec, choice } = useComparedPart(takeOff);
  const { control, handleSubmit, reset } = useForm({ resolver: zodResolver(Moved), defaultValues: STILL });
  const lay = async (nudge?: z.output<typeof Moved>) => {
    setSaid(null);
    setBusy(true);
    const mine = ++newest.current;
    const built = await kernelLine('show')
      .ask(api => api.shadows(spec))
      .catch((error: Error) => error);
    if (mine !== newest.current) return;
    if (built === null || built instanceof Error || !built.ok) {
      setBusy(false);
      if (built !== null) setSaid(NOT_BUILT);
      return;
    }
    const how = { ...(side === BEST ? {} : { side }), ...(nudge ? { nudge } : {}) };
    const reply = await ask(api => api.lay(built.shadows, how));
    if (mine !== newest.current) return;
    setBusy(false);
    if (reply?.ok) onLaid(reply.laid);
    else if (reply) setSaid(reply.message);
  };
  return (
    <Panel>
      <h2>The part over it</h2>
      <p className="soft">
        At true size: over the object before printing, or over a photo of the print, to see what the printer
        did.
      </p>
      <Row $gap={8} $wrap style={{ marginTop: 6 }}>
        {choice}
        <div style={{ width: 150 }}>
          <Select
            label="From which side"
            hideLabel
            value={side}
            options={[
              { value: BEST, label: 'as it fits best' },
              ...SIDES.map(s => ({ value: s, label: `from ${SIDE_WORDS[s]}` })),
            ]}
            onChange={next => {
              setSide(next);
              takeOff();
            }}
          />
        </div>
        <Button isDisabled={busy} onPress={() => void lay()}>
          {busy ? 'Laying it…' : 'Lay it over'}
        </Button>
        {laid ? (
          <Button $small $look="quiet" onPress={takeOff}>
            Take it off
          </Button>
        ) : null}
      </Row>
      {said ? <Notice level="warn">{said}</Notice> : null}
      {laid ? (
        <Stack $gap={8} style={{ marginTop: 10 }}>
          <Findings laid={laid} shown={shown} onPick={onPick} />
          <form onSubmit={event => void handleSubmit(moved => lay(moved))(event)}>
            <Moves>
              <FormField control={control} name="across" label="Right by, mm" />
              <FormField control={control} name="up" label="Up by, mm" />
              <FormField control={control} name="turn" label="Turned by, °" />
            </Moves>
            <Row $gap={8}>
              <Button $small type="submit" isDisabled={busy}>
                Move the part
              </Button>
              <Button
                $small
                $look="quiet"
                isDisabled={busy}
                onPress={() => {
                  reset(STILL);
                  void lay();
                }}
              >
                As it fits best
              </Button>
            </Row>
          </form>
        </Stack>
      ) : null}
    </Panel>
  );
}

type Piece = ShownLaid['pieces'][number];

function Findings({ laid, shown, onPick }: Pick<Props, 'shown' | 'onPick'> & { laid: ShownLaid }) {
  const { overlap, mean, pieces, missing, side } = laid;
  const off = pieces
    .flatMap(p => (p.off && Math.abs(p.off.value) > p.off.u ? [{ piece: p, off: p.off }] : []))
    .toSorted((a, b) => Math.abs(b.off.value) - Math.abs(a.off.value));
  const strange = pieces.filter(p => p.off === null).length;
  return (
    <>
      {overlap < LEAST_OVERLAP ? (
        <Notice level="warn">
          It does not lie on this part: {formatPlain(100 * overlap, 0)} % of it has a line of the part near
          it. Is it the same thing, from that side, and is its thickness right?
        </Notice>
      ) : (
        <p>
          The part, from {SIDE_WORDS[side]}, is drawn over it.{' '}
          {mean ? (
            <>
              All round it is on average{' '}
              <b className="number">
                {signed(mean.value, 2)} ± {formatPlain(mean.u, 2)} mm
              </b>{' '}
              off.
            </>
          ) : null}
        </p>
      )}
      {off.length > 0 ? (
        <List>
          {off.slice(0, MOST_LISTED).map(({ piece, off: by }) => {
            const same = shown.pieces.find(p => p.key === piece.key);
            return (
              <li key={piece.key}>
                <Button $small $look="quiet" isDisabled={!same} onPress={() => same && onPick(same)}>
                  {differs(piece, by)}
                </Button>
              </li>
            );
          })}
        </List>
      ) : null}
      <p className="soft">
        {off.length > MOST_LISTED ? `${off.length - MOST_LISTED} more differ by less. ` : ''}
        {off.length === 0
          ? 'Nowhere does it differ by more than its doubt. '
          : 'All else agrees within its doubt. '}
        {strange > 0
          ? `${strange === 1 ? 'One edge of it has' : `${strange} edges of it have`} no line of the part near. `
          : ''}
        {missing.length > 0
          ? `${missing.length === 1 ? 'One line' : `${missing.length} lines`} of the part (${missing
              .map(m => `${formatPlain(m.width, 1)} mm wide`)
              .join(', ')}) the photo does not show.`
          : ''}
      </p>
    </>
  );
}

/** A circle is reported by its diameter; a side or a rounding by how far it is out or in. */
function differs({ kind, hole, most }: Piece, { value, u }: Sized): string {
  const far = (times: number) =>
    `${formatPlain(times * Math.abs(value), 2)} ± ${formatPlain(times * u, 2)} mm`;
  if (kind === 'round')
    return `${hole ? 'Hole' : 'Disc'} ${value > 0 === hole ? 'narrower' : 'wider'} by ${far(2)}`;
  const worst = Math.abs(most) > Math.abs(value) + u ? `, at most ${formatPlain(Math.abs(most), 2)}` : '';
  const name = kind === 'side' ? 'Side' : 'Rounding';
  return `${name} ${value > 0 ? 'stands out' : 'falls short'} by ${far(1)}${worst}`;
}

const List = styled.ul`
  margin: 0; padding: 0; list-style: none;
  button { white-space: normal; text-align: left; padding: 2px 6px; min-height: 28px; color: var(--blue); font-weight: 500; }
`;
const Moves = styled.div`
  display: grid; grid-template-columns: repeat(3, minmax(0, 1fr)); gap: 8px; align-items: end; margin-bottom: 8px;
`;
