import { X } from 'lucide-react';
import { useState } from 'react';
import styled from 'styled-components';
import { parseQuantity } from '../../../../core/quantity/parse';
import {
  type Grip,
  movedGrip,
  outOfEdge,
  type Written,
  withCorner,
} from '../../../../core/shape/outline-edit';
import type { Point2 } from '../../../../core/shape/vector';
import { Button, IconButton } from '../../../ui/controls';
import { Cell } from './table';

interface Props {
  grip: Grip;
  corners: readonly Written[];
  points: readonly Point2[];
  left: number;
  top: number;
  onKeep(next: Written[]): void;
  onClose(): void;
}

/** The numbers of the selected item, next to it on the drawing. */
export function GripCard({ grip, corners, points, left, top, onKeep, onClose }: Props) {
  const corner = corners[grip.at]!;
  const put = (change: Partial<Written>) =>
    onKeep(corners.map((c, i) => (i === grip.at ? { ...c, ...change } : c)));
  return (
    <Card style={{ left, top }} role="group" aria-label={titleOf(grip)}>
      <header>
        <b>{titleOf(grip)}</b>
        <IconButton aria-label="Put it down" onPress={onClose}>
          <X size={14} />
        </IconButton>
      </header>
      {grip.of === 'corner' ? (
        <>
          <Pair>
            <NumberCell label="x" value={corner.x} onKeep={x => put({ x })} />
            <NumberCell label="y" value={corner.y} onKeep={y => put({ y })} />
          </Pair>
          <Button
            $small
            $look="quiet"
            isDisabled={corners.length <= 2}
            onPress={() => {
              onClose();
              onKeep(corners.filter((_, i) => i !== grip.at));
            }}
          >
            Take it out
          </Button>
        </>
      ) : null}
      {grip.of === 'via' && corner.via ? (
        <Pair>
          <NumberCell label="x" value={corner.via[0]} onKeep={x => put({ via: [x, corner.via![1]] })} />
          <NumberCell label="y" value={corner.via[1]} onKeep={y => put({ via: [corner.via![0], y] })} />
        </Pair>
      ) : null}
      {grip.of === 'edge' ? (
        <>
          <Outwards
            onMove={by => {
              const [x, y] = outOfEdge(points, grip.at);
              onKeep(movedGrip(corners, grip, [by * x, by * y]));
            }}
          />
          <NumberCell
            label="Trim, mm outwards"
            value={corner.trim ?? ''}
            onKeep={trim => put({ trim: trim === '' ? undefined : trim })}
          />
          <Button
            $small
            $look="quiet"
            onPress={() => {
              onClose();
              onKeep(withCorner(corners, grip.at, points));
            }}
          >
            A corner in its middle
          </Button>
        </>
      ) : null}
    </Card>
  );
}

const titleOf = ({ of, at }: Grip): string =>
  of === 'corner'
    ? `Corner ${at + 1}`
    : of === 'via'
      ? `Arc to corner ${at + 1}`
      : `Edge to corner ${at + 1}`;

/** Stored on Enter, or when the field is left. */
function NumberCell({ label, value, onKeep }: { label: string; value: string; onKeep(text: string): void }) {
  const [typed, setTyped] = useState<string | null>(null);
  const keep = () => {
    if (typed !== null && typed.trim() !== value) onKeep(typed.trim());
    setTyped(null);
  };
  return (
    <Labelled>
      <span aria-hidden>{label}</span>
      <Cell
        aria-label={label}
        value={typed ?? value}
        onChange={event => setTyped(event.target.value)}
        onBlur={keep}
        onKeyDown={event => event.key === 'Enter' && keep()}
      />
    </Labelled>
  );
}

/** Moves the whole edge by a measured amount: outwards, or inwards below 0. */
function Outwards({ onMove }: { onMove(by: number): void }) {
  const [typed, setTyped] = useState('');
  const read = parseQuantity(typed.replace('−', '-'), 'length');
  const move = () => {
    if (!read.ok) return;
    onMove(read.quantity.value);
    setTyped('');
  };
  return (
    <Labelled>
      <span aria-hidden>Move it out by, mm</span>
      <Pair>
        <Cell
          aria-label="Move it out by, mm"
          value={typed}
          placeholder="−0.4"
          aria-invalid={typed !== '' && !read.ok}
          onChange={event => setTyped(event.target.value)}
          onKeyDown={event => event.key === 'Enter' && move()}
        />
        <Button $small isDisabled={!read.ok} onPress={move}>
          Move
        </Button>
      </Pair>
      {typed !== '' && !read.ok ? <small role="alert">{read.message}</small> : null}
    </Labelled>
  );
}

const Card = styled.div`
  position: absolute; width: 230px; padding: 8px 10px; display: flex; flex-direction: column; gap: 6px; z-index: 2;
  background: var(--raised); border: 1px solid var(--rule); border-radius: 6px; box-shadow: 0 3px 14px rgb(0 0 0 / 12%); font-size: 13px;
  header { display: flex; justify-content: space-between; align-items: center; } header button { min-height: 24px; min-width: 24px; }
  small { color: var(--danger); }
`;
const Labelled = styled.div`display: flex; flex-direction: column; gap: 2px; min-width: 0; color: var(--soft);`;
const Pair = styled.div`display: grid; grid-template-columns: 1fr 1fr; gap: 6px;`;
