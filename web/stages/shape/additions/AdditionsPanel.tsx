import {
  closestCenter,
  DndContext,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
} from '@dnd-kit/core';
import {
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { ArrowDown, ArrowUp, Copy, GripVertical, Plus, Trash2 } from 'lucide-react';
import { useState } from 'react';
import styled from 'styled-components';
import type { Dimension } from '../../../../core/job/document';
import { canMirror, type SidesChanged } from '../../../../core/job/mirrored-addition';
import { kindOf } from '../../../../core/shape/additions';
import {
  type Addition,
  type AdditionKind,
  inOrder,
  MOST_ADDITIONS,
} from '../../../../core/shape/additions/addition';
import { freeName } from '../../../../core/shape/additions/free-name';
import { longName, surfaceNameOf } from '../../../../core/shape/additions/with-additions';
import type { Finding } from '../../../../core/shape/findings/finding';
import { useBench } from '../../../job/bench-context';
import { RemedyNotice } from '../../../job/RemedyNotice';
import { CommittedField } from '../../../ui/CommittedField';
import { Button, Checkbox, Hinted, IconButton, MenuButton, Select } from '../../../ui/controls';
import { Panel } from '../../../ui/layout';
import { FONTS } from '../../../ui/theme';
import { useLead } from '../lead-to';
import { ParameterField } from '../ParameterField';
import { AddDialog } from './AddDialog';
import { KindPicture } from './KindPicture';
import { useAddAddition } from './use-add-addition';

/** The maker's additions to the recipe's part, in the order in which they are carried out. */
export function AdditionsPanel({ findings }: { findings: readonly Finding[] }) {
  const { resolved, edit } = useBench('resolved', 'edit');
  const lead = useLead();
  const { part } = resolved;
  const [adding, setAdding] = useState(false);
  const list = inOrder(part.additions);
  // When one of its numbers is asked for, it opens.
  const [open, setOpen] = useState(
    () => list.find(a => lead === a.id || lead?.startsWith(longName(a, '')))?.id ?? null,
  );
  const sensors = useSensors(
    useSensor(PointerSensor),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  /** Dropped on another one, it takes that one's place. */
  const drop = async (id: string, over: string | null) => {
    const [from, to] = [id, over].map(x => list.findIndex(a => a.id === x)) as [number, number];
    if (to < 0 || from === to) return;
    const before = list[to > from ? to + 1 : to]?.id ?? null;
    await edit({ kind: 'place-addition', partId: part.id, additionId: id, before });
  };
  const addOne = useAddAddition();
  const add = async (kind: AdditionKind) => {
    setAdding(false);
    const id = await addOne(kind.kind);
    if (id) setOpen(id);
  };
  const copy = async (addition: Addition, mirror?: SidesChanged) => {
    const id = freeName(kindOf(addition.kind).short, part.additions);
    if (await edit({ kind: 'copy-addition', partId: part.id, additionId: addition.id, id, mirror }))
      setOpen(id);
  };
  return (
    <Panel style={{ marginTop: 12 }} aria-label="Additions">
      <Head>
        <h2>Additions</h2>
        {list.length === 0 ? (
          <p>A tab, a hole, a name on it, the other hand, two halves: whatever the recipe lacks.</p>
        ) : null}
        <Button $small onPress={() => setAdding(true)} isDisabled={list.length >= MOST_ADDITIONS}>
          <Plus size={15} /> Add
        </Button>
      </Head>
      {list.length > 0 ? (
        <DndContext
          sensors={sensors}
          collisionDetection={closestCenter}
          onDragEnd={({ active, over }) => void drop(String(active.id), over && String(over.id))}
        >
          <SortableContext items={list.map(a => a.id)} strategy={verticalListSortingStrategy}>
            <List>
              {list.map((addition, i) => (
                <Row
                  key={addition.id}
                  addition={addition}
                  place={
                    i === 0
                      ? list.length === 1
                        ? 'only'
                        : 'first'
                      : i === list.length - 1
                        ? 'last'
                        : 'between'
                  }
                  open={open === addition.id}
                  onCopy={mirror => void copy(addition, mirror)}
                  full={list.length >= MOST_ADDITIONS}
                  onOpen={() => setOpen(now => (now === addition.id ? null : addition.id))}
                  findings={findings.filter(f => f.addition === addition.id)}
                />
              ))}
            </List>
          </SortableContext>
        </DndContext>
      ) : null}
      <AddDialog isOpen={adding} onClose={() => setAdding(false)} onChoose={kind => void add(kind)} />
    </Panel>
  );
}

function Row({
  addition,
  place,
  open,
  onOpen,
  onCopy,
  full,
  findings,
}: {
  addition: Addition;
  place: 'first' | 'between' | 'last' | 'only';
  open: boolean;
  onOpen(): void;
  onCopy(mirror?: SidesChanged): void;
  /** The list is full. */
  full: boolean;
  findings: readonly Finding[];
}) {
  const { resolved, edit } = useBench('resolved', 'edit');
  const { part } = resolved;
  const at = { partId: part.id, additionId: addition.id };
  const { setNodeRef, attributes, listeners, transform, transition } = useSortable({ id: addition.id });
  const move = (by: -1 | 1) => void edit({ kind: 'move-addition', ...at, by });
  return (
    <li
      ref={setNodeRef}
      data-about={addition.id}
      data-off={addition.on ? undefined : ''}
      style={{ transform: CSS.Translate.toString(transform), transition }}
    >
      <Line>
        {place === 'only' ? null : (
          <Handle
            type="button"
            {...attributes}
            {...listeners}
            aria-label={`Drag ${addition.name} to another place`}
          >
            <GripVertical size={16} aria-hidden />
          </Handle>
        )}
        <Hinted hint={addition.on ? 'Switch it off' : 'Switch it on'}>
          <Switch
            aria-label={`${addition.name} is on`}
            isSelected={addition.on}
            onChange={on => void edit({ kind: 'addition', ...at, change: { on } })}
          >
            {''}
          </Switch>
        </Hinted>
        <KindPicture kind={addition.kind} />
        <Open type="button" aria-expanded={open} onClick={onOpen}>
          <b>{addition.name}</b>
          <small>
            {addition.on ? summary(addition, resolved.parameters) : 'switched off'}
            {addition.fits ? ' · must fit' : ''}
          </small>
        </Open>
        <code>{addition.id}</code>
        <Hinted hint="Do it earlier">
          <IconButton
            aria-label={`Move ${addition.name} up`}
            isDisabled={place === 'first' || place === 'only'}
            onPress={() => move(-1)}
          >
            <ArrowUp size={16} />
          </IconButton>
        </Hinted>
        <Hinted hint="Do it later">
          <IconButton
            aria-label={`Move ${addition.name} down`}
            isDisabled={place === 'last' || place === 'only'}
            onPress={() => move(1)}
          >
            <ArrowDown size={16} />
          </IconButton>
        </Hinted>
        {canMirror(kindOf(addition.kind)) ? (
          <MenuButton
            label={<Copy size={16} aria-hidden />}
            says={`Copy ${addition.name}`}
            isDisabled={full}
            items={[
              { id: 'same', label: 'another one like it' },
              { id: 'left-right', label: 'its mirror image, left and right' },
              { id: 'front-back', label: 'its mirror image, front and back' },
            ]}
            onChoose={how => onCopy(how === 'same' ? undefined : how)}
          />
        ) : (
          <Hinted hint="Another one like it">
            <IconButton aria-label={`Copy ${addition.name}`} isDisabled={full} onPress={() => onCopy()}>
              <Copy size={16} />
            </IconButton>
          </Hinted>
        )}
        <Hinted hint="Remove it; undo brings it back">
          <IconButton
            aria-label={`Remove ${addition.name}`}
            onPress={() => void edit({ kind: 'remove-addition', ...at })}
          >
            <Trash2 size={16} />
          </IconButton>
        </Hinted>
      </Line>
      {findings.map((f, i) => (
        <RemedyNotice key={i} level={f.level} remedy={f.remedy}>
          {f.message}
        </RemedyNotice>
      ))}
      {open && addition.on ? <Numbers addition={addition} /> : null}
    </li>
  );
}

/** Its place and first sizes, in a few words. */
function summary(
  addition: Addition,
  parameters: Readonly<Record<string, number | string | boolean>>,
): string {
  const kind = kindOf(addition.kind);
  const own = (name: string) => parameters[longName(addition, name)];
  const shown = kind.parameters.filter(spec => {
    const short = Object.fromEntries(kind.parameters.map(s => [s.name, own(s.name)!]));
    return spec.group === 'main' && (spec.shown?.(short) ?? true);
  });
  const words = shown.flatMap(spec => {
    const value = own(spec.name);
    if (spec.kind === 'place' || spec.kind === 'words') return [String(value)];
    if (spec.kind === 'choice') return [spec.options.find(o => o.value === value)?.label ?? ''];
    if (spec.kind === 'length' && typeof value === 'number' && !['x', 'y'].includes(spec.name))
      return [`${Number(value.toFixed(2))}${spec.measure === 'angle' ? '°' : ''}`];
    return [];
  });
  return words.slice(0, 5).join(' · ');
}

function Numbers({ addition }: { addition: Addition }) {
  const { resolved, edit } = useBench('resolved', 'edit');
  const { part, recipe, parameters } = resolved;
  const own = recipe.parameters.filter(p => p.addition === addition.id && (p.shown?.(parameters) ?? true));
  return (
    <Body>
      <Fields>
        {own
          .filter(p => p.group === 'main')
          .map(p => (
            <ParameterField key={p.name} spec={p} />
          ))}
      </Fields>
      <details>
        <summary>More, and what it is called</summary>
        <Fields>
          {own
            .filter(p => p.group === 'more')
            .map(p => (
              <ParameterField key={p.name} spec={p} />
            ))}
          <CommittedField
            label="Called"
            value={addition.name}
            check={text =>
              text.trim() === '' ? 'Give it a name.' : text.length > 80 ? 'At most 80 characters.' : undefined
            }
            onCommit={name =>
              void edit({ kind: 'addition', partId: part.id, additionId: addition.id, change: { name } })
            }
          />
        </Fields>
      </details>
      <Fits addition={addition} />
    </Body>
  );
}

const NOTHING = 'nothing';
const NEW = 'new';

/** Whether one of its numbers follows a reading of the object. */
function Fits({ addition }: { addition: Addition }) {
  const { resolved, edit, document, select, go } = useBench('resolved', 'edit', 'document', 'select', 'go');
  const { part, recipe, parameters } = resolved;
  const kind = kindOf(addition.kind);
  const own = Object.fromEntries(kind.parameters.map(s => [s.name, parameters[longName(addition, s.name)]!]));
  const parameter = kind.fit?.parameter(own);
  if (!kind.fit || (!parameter && !addition.fits)) return null;
  const label = kind.parameters.find(s => s.name === parameter)?.label.toLowerCase() ?? 'size';
  const active = recipe.mates.find(m => m.id === surfaceNameOf(addition))?.active(parameters) ?? true;
  const choose = async (value: string) => {
    const at = { kind: 'addition-fits' as const, partId: part.id, additionId: addition.id };
    if (value === NOTHING) return void edit({ ...at, dimensionId: null });
    if (value !== NEW) return void edit({ ...at, dimensionId: value });
    const dimension = dimensionFor(addition, kind.fit!.side(own), document.dimensions);
    if (!(await edit({ kind: 'add-dimension', dimension }))) return;
    if (!(await edit({ ...at, dimensionId: dimension.id }))) return;
    select(dimension.id);
    go('measure', dimension.id);
  };
  return (
    <FitLine>
      <Select
        label={`Its size “${label}” must fit`}
        value={addition.fits?.dimension ?? NOTHING}
        options={[
          { value: NOTHING, label: 'nothing: it is as wide as it says' },
          { value: NEW, label: 'a size of the object, to be measured' },
          ...document.dimensions
            .filter(d => ['outside', 'inside', 'length', 'step', 'depth'].includes(d.kind))
            .map(d => ({ value: d.id, label: d.label })),
        ]}
        onChange={value => void choose(value)}
      />
      {active ? null : <p>Its choices have made another surface of it: say again what it must fit.</p>}
    </FitLine>
  );
}

function dimensionFor(
  addition: Addition,
  side: 'inside' | 'outside',
  taken: readonly Dimension[],
): Dimension {
  let name = `${addition.id}_seat`;
  for (let n = 2; taken.some(d => d.name === name || d.id === name); n++) name = `${addition.id}_seat${n}`;
  return {
    id: name,
    name,
    label: `Seat of “${addition.name}”`.slice(0, 120),
    // The counterpart of our hole is an outside of the object, and the reverse.
    kind: side === 'inside' ? 'outside' : 'inside',
    critical: true,
    guide: null,
    note: '',
    readings: [],
  };
}

const Head = styled.div`
  display: flex; align-items: center; gap: 12px;
  h2 { font: 600 17px ${FONTS.label}; margin: 0; } p { flex: 1; color: var(--soft); font-size: 14px; margin: 0; } button { margin-left: auto; }
`;
const List = styled.ol`
  list-style: none; margin: 8px 0 0; padding: 0; display: flex; flex-direction: column;
  > li { border-top: 1px solid var(--rule); padding: 5px 0; display: flex; flex-direction: column; gap: 5px; }
  > li[data-off] b, > li[data-off] small, > li[data-off] svg { opacity: 0.55; }
`;
const Handle = styled.button`border: 0; background: none; padding: 4px 0; color: var(--soft); cursor: grab; touch-action: none; display: flex;`;
const Line = styled.div`
  display: flex; align-items: center; gap: 6px; min-width: 0;
  > svg { width: 44px; height: 32px; flex: none; }
  code { font: 13px ${FONTS.number}; color: var(--soft); }
  @media (max-width: 620px) { code { display: none; } }
`;
const Switch = styled(Checkbox)`padding: 0;`;
const Open = styled.button`
  flex: 1; min-width: 0; text-align: left; background: none; border: 0; padding: 3px 4px; cursor: pointer; color: var(--ink); border-radius: 4px;
  b { display: block; font: 600 15px ${FONTS.label}; overflow: hidden; text-overflow: ellipsis; white-space: nowrap; }
  small { display: block; font: 13px ${FONTS.text}; color: var(--soft); overflow: hidden; text-overflow: ellipsis; white-space: nowrap; }
  &:hover { background: var(--tint); }
`;
const Body = styled.div`
  padding: 6px 0 10px; display: flex; flex-direction: column; gap: 10px;
  summary { cursor: pointer; color: var(--blue); font-size: 14px; margin-bottom: 8px; }
`;
const Fields = styled.div`display: grid; grid-template-columns: repeat(auto-fill, minmax(178px, 1fr)); gap: 12px 16px;`;
const FitLine = styled.div`max-width: 420px; p { color: var(--danger); font-size: 13.5px; margin: 4px 0 0; }`;
