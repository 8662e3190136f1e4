import { zodResolver } from '@hookform/resolvers/zod';
import { lazy, Suspense, useEffect, useRef, useState } from 'react';
import { useController, useForm, useWatch } from 'react-hook-form';
import styled from 'styled-components';
import { ulid } from 'ulid';
import { z } from 'zod';
import { doubtOf, JUDGED_WORDS, type JudgedBy, USUAL_SENSE } from '../../../core/learn/signed';
import type { Press } from '../../../core/shape/additions/pressed';
import type { Mover } from '../../../core/shape/movers';
import type { Movable } from '../../../core/work/movable';
import { useBench } from '../../job/bench-context';
import { useSolid } from '../../solid/use-solid';
import { Button, Select } from '../../ui/controls';
import { FormField } from '../../ui/FormField';
import { Loading, Notice, Panel, Row } from '../../ui/layout';
import { ownDimension } from '../measure/own-dimension';
import { makeWords } from '../shape/movers/MoverList';
import { MoversPanel } from '../shape/movers/MoversPanel';
import { amountOf } from './try-draft';

const SolidView = lazy(() => import('../../solid/SolidView'));

const BY = ['eye', 'paper', 'feeler', 'caliper'] as const satisfies JudgedBy[];

/** A larger amount is another part, mm. */
const MOST = 500;
const read = (text: string) => amountOf(text, 'mm', MOST);
const Amount = z.string().superRefine((text, ctx) => {
  const { problem } = read(text);
  if (problem) ctx.addIssue(problem);
});
/** How far off the place is, and what is still right once it is judged again. */
const Said = z.object({
  way: z.enum(['out', 'in']),
  amount: Amount,
  by: z.enum(BY),
  name: z.string().trim().max(120, 'At most 120 characters.'),
  still: Amount,
});

/** The wrong place on the part, pressed on the solid, and by how much: a number that moves it is changed. */
export function PressAndSay() {
  const [open, setOpen] = useState(false);
  return (
    <Panel style={{ marginTop: 14, maxWidth: 780 }}>
      <Row $between $wrap>
        <div>
          <h3>Is a place of it wrong that was not asked for?</h3>
          <p className="soft" style={{ fontSize: 14 }}>
            Press it on the solid and say how far it should be from where it is.
          </p>
        </div>
        <Button $small onPress={() => setOpen(!open)}>
          {open ? 'Close the solid' : 'Show the solid'}
        </Button>
      </Row>
      {open ? <Pressing /> : null}
    </Panel>
  );
}

function Pressing() {
  const { resolved, edit, document, go } = useBench('resolved', 'edit', 'document', 'go');
  const { part, parameters } = resolved;
  const solid = useSolid(part, parameters, resolved.checkContext);
  const [press, setPress] = useState<Press | null>(null);
  const view = useRef<HTMLDivElement>(null);
  // It opens at the end of a long page: it is scrolled into view.
  useEffect(() => {
    view.current?.scrollIntoView({ block: 'center' });
  }, []);
  const { control, formState } = useForm<z.infer<typeof Said>>({
    resolver: zodResolver(Said),
    defaultValues: { way: 'out', amount: '', by: 'eye', name: '', still: '' },
    mode: 'onChange',
  });
  const said = useWatch({ control });
  const { field: way } = useController({ control, name: 'way' });
  const { field: by } = useController({ control, name: 'by' });
  const amount = read(said.amount ?? '');
  const tolerance = read(said.still ?? '');
  const off = amount.value === null ? null : (way.value === 'out' ? 1 : -1) * amount.value;
  /** The value of the number for which the place would be right. */
  const rightAt = ({ rate }: Mover, { now }: Movable): number | null =>
    off === null ? null : now - off / rate;
  const change = ({ set }: Movable, to: number) =>
    void edit({ kind: 'parameter', partId: part.id, ...set(Number(to.toFixed(2))) });
  /** Judged from now on: the answer becomes the reading of where it should be. */
  const judge = async (mover: Mover, { isAngle, label }: Movable, to: number) => {
    const unit = isAngle ? ('deg' as const) : ('mm' as const);
    const words = said.name?.trim() || label;
    const dimension = ownDimension(words, unit === 'deg' ? 'angle' : 'length', document.dimensions, {
      readings: [
        {
          id: ulid(),
          value: Number(to.toFixed(3)),
          text: to.toFixed(2),
          unit,
          at: new Date().toISOString(),
          instrumentId: null,
          source: 'said',
          via: 'typed',
          struck: null,
          u: doubtOf(by.value, amount.value ?? 0, 'mm') / Math.abs(mover.rate),
        },
      ],
    });
    const id = ulid();
    const added =
      (await edit({ kind: 'add-dimension', dimension })) &&
      (await edit({
        kind: 'add-mate',
        mate: {
          id,
          name: words,
          // An angle that moves a place is judged as an angle.
          kind: unit === 'deg' ? 'angle' : 'position',
          ours: { of: 'part', part: part.id, surface: id },
          other: { of: 'object', dimension: dimension.id },
          number: mover.name,
          rate: unit === 'deg' ? 1 : Number(mover.rate.toFixed(4)),
          tolerance: { min: -tolerance.value!, max: tolerance.value! },
          sense: unit === 'deg' ? USUAL_SENSE.angle : USUAL_SENSE.position,
        },
      }));
    if (added) go('fit', id);
  };
  return (
    <>
      <View ref={view}>
        {solid.solid ? (
          <Suspense fallback={<Loading what="Setting up the view" />}>
            <SolidView
              solid={solid.solid}
              lit={null}
              busy={solid.busy}
              onFace={setPress}
              says={
                press
                  ? 'Press another place, or say below how far off it is.'
                  : 'Press the place that is wrong.'
              }
            />
          </Suspense>
        ) : solid.refused ? (
          <Notice level="stop">{solid.refused[0]?.message}</Notice>
        ) : (
          <Loading what="Starting the geometry kernel" />
        )}
      </View>
      {press ? (
        <MoversPanel
          press={press}
          title="How far off is it?"
          onClose={() => setPress(null)}
          actions={(mover, movable) => {
            const to = rightAt(mover, movable);
            if (to === null || amount.value === 0) return <span className="soft">say how far first</span>;
            return (
              <>
                <Button $small onPress={() => change(movable, to)}>
                  {makeWords(movable, to)}
                </Button>
                {movable.carriesMate ? (
                  <Button
                    $small
                    $look="quiet"
                    isDisabled={!tolerance.value || Boolean(formState.errors.name)}
                    onPress={() => void judge(mover, movable, to)}
                  >
                    Judge it from now on
                  </Button>
                ) : null}
              </>
            );
          }}
        >
          <Fields>
            <Select
              label="The place is"
              value={way.value}
              options={[
                { value: 'out', label: 'too far out' },
                { value: 'in', label: 'too far in' },
              ]}
              onChange={way.onChange}
            />
            <FormField control={control} name="amount" label="By about, mm" placeholder="3" />
            <Select
              label="Judged"
              value={by.value}
              options={BY.map(value => ({ value, label: JUDGED_WORDS[value] }))}
              onChange={by.onChange}
            />
            <FormField
              control={control}
              name="name"
              label="Call it (to judge it again)"
              placeholder="Edge beside the lamp"
            />
            <FormField
              control={control}
              name="still"
              label="Still right within, ± mm"
              placeholder="0.3"
              hint="Needed to judge it from now on."
            />
          </Fields>
        </MoversPanel>
      ) : null}
    </>
  );
}

const View = styled.div`position: relative; height: 300px; margin: 10px 0; border: 1px solid var(--rule); border-radius: 6px; overflow: hidden;`;
const Fields = styled.div`
  display: grid; grid-template-columns: repeat(auto-fill, minmax(170px, 1fr)); gap: 10px 14px; margin: 8px 0; align-items: start;
`;
