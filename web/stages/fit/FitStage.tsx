import { Plus } from 'lucide-react';
import { useState } from 'react';
import { ToggleButton, ToggleButtonGroup } from 'react-aria-components';
import styled from 'styled-components';
import {
  type StandardWant,
  WANT_NAMES,
  WANT_WORDS,
  type WantName,
  windowForSize,
} from '../../../core/fit/wants';
import { type FitMate, isFit, type Mate, type SignedMate, type Want } from '../../../core/job/document';
import { windowFor } from '../../../core/job/workshop';
import { formatPercent, formatPlain } from '../../../core/quantity/format';
import { parseQuantity } from '../../../core/quantity/parse';
import { acrossOf, type MateLedger } from '../../../core/work/ledger';
import type { ResolvedPart } from '../../../core/work/resolved';
import { wedgeOf } from '../../../core/work/wedge';
import { useBench } from '../../job/bench-context';
import { EffortNotes } from '../../job/EffortNotes';
import { CommittedField } from '../../ui/CommittedField';
import { Button, Select } from '../../ui/controls';
import { Big, Empty, Lead, Notice, Panel, Row, Stack } from '../../ui/layout';
import { FONTS } from '../../ui/theme';
import { AddMateDialog, type Preset } from './AddMateDialog';
import { ClearanceCurve } from './ClearanceCurve';
import { EffectsPanel } from './EffectsPanel';
import { FeelPanel } from './FeelPanel';
import { GapPicture } from './GapPicture';
import { GaugePanel } from './GaugePanel';
import { GoesWith } from './GoesWith';
import { GripsPanel } from './GripsPanel';
import { LadderPanel } from './LadderPanel';
import { Dropped, MateKeys } from './MateKeys';
import { NotRead } from './NotRead';
import { OwnWindow } from './OwnWindow';
import { SignedFit } from './SignedFit';
import { SurerPanel } from './SurerPanel';
import { WantPicture } from './WantPicture';

const WANTS = WANT_NAMES.filter((name): name is StandardWant => name !== 'own');
const PREFERENCES: { value: Want['prefer']; label: string }[] = [
  { value: 'none', label: 'neither is better' },
  { value: 'loose', label: 'rather loose than tight' },
  { value: 'tight', label: 'rather tight: I can file it' },
];

/** How each surface should feel, and the number that gives it. */
export function FitStage() {
  const { resolved, selected, select } = useBench('resolved', 'selected', 'select');
  const [adding, setAdding] = useState<Preset | null>(null);
  const mates: readonly Mate[] = [...resolved.mates, ...resolved.signed];
  const mate =
    mates.find(m => m.id === selected || (m.other.of === 'object' && m.other.dimension === selected)) ??
    mates[0];
  const dialog = adding ? (
    <AddMateDialog
      preset={adding}
      onClose={id => {
        setAdding(null);
        if (id) select(id);
      }}
    />
  ) : null;
  if (!mate)
    return (
      <>
        <Empty
          title="Nothing has to fit"
          action={<Button onPress={() => setAdding({})}>Add what must fit</Button>}
        >
          This part may stand free. If something of it must fit, say what.
        </Empty>
        <Dropped />
        {dialog}
      </>
    );
  return (
    <>
      <Tabs
        aria-label="Mate"
        selectionMode="single"
        disallowEmptySelection
        selectedKeys={[mate.id]}
        onSelectionChange={keys => select(String([...keys][0]))}
      >
        {mates.map(m => (
          <ToggleButton key={m.id} id={m.id}>
            {m.name}
          </ToggleButton>
        ))}
        <Button $small $look="quiet" onPress={() => setAdding({})}>
          <Plus size={15} aria-hidden /> Add what must fit
        </Button>
      </Tabs>
      {isFit(mate) ? <FitOf mate={mate} /> : <SignedOf mate={mate} />}
      <MateKeys key={mate.id} mate={mate} />
      <Dropped />
      {dialog}
    </>
  );
}

function SignedOf({ mate }: { mate: SignedMate }) {
  const { resolved } = useBench('resolved');
  const spec = resolved.recipe.parameters.find(p => p.name === mate.number);
  return (
    <>
      <h1>{mate.name}: what is right?</h1>
      <Lead>
        Its number is “{spec?.label ?? mate.number}”
        {Math.abs(mate.rate - 1) > 0.01 ? `, which moves it ${formatPlain(mate.rate, 2)} times as far` : ''}.
      </Lead>
      <SignedFit key={mate.id} mate={mate} ledger={resolved.ledger.signed.find(m => m.mate.id === mate.id)} />
    </>
  );
}

function FitOf({ mate }: { mate: FitMate }) {
  const { resolved } = useBench('resolved');
  const ledger = resolved.ledger.mates.find(m => m.mate.id === mate.id);
  const wedge =
    ledger && wedgeOf(resolved.recipe.surfaces(resolved.parameters), mate.ours.surface, ledger.window);
  return (
    <>
      <h1>{mate.name}: how should it fit?</h1>
      <Lead>
        Our surface is the {mate.side}.{' '}
        {mate.want.window.unit === 'strain'
          ? 'The window is how far the soft side is stretched.'
          : `Clearance is ${ledger ? acrossOf(ledger).replace('the ', 'the whole ') : 'across the whole of it'}.`}
        {wedge
          ? ` It tapers, and is judged by how far it goes in: right from ${placeWords(wedge.min)} to ${placeWords(wedge.max)}.`
          : ''}
      </Lead>
      <GoesWith mate={mate} />
      <Wants mate={mate} ledger={ledger} />
      <Stack $gap={12}>
        <EffortNotes />
        {ledger ? <NextPrint ledger={ledger} /> : <Unmeasured mate={mate} />}
        {ledger ? <LadderPanel key={`ladder-${mate.id}`} ledger={ledger} /> : null}
        {ledger && !wedge ? <GaugePanel key={`gauge-${mate.id}`} ledger={ledger} /> : null}
        {ledger ? <EffectsPanel ledger={ledger} /> : null}
        <GripsPanel />
        {ledger && canBeFelt(mate, ledger) ? <FeelPanel key={mate.id} ledger={ledger} /> : null}
      </Stack>
    </>
  );
}

const placeWords = (depth: number) =>
  depth < 0 ? `${formatPlain(-depth, 1)} mm short of its place` : `${formatPlain(depth, 1)} mm beyond it`;

function Wants({ mate, ledger }: { mate: FitMate; ledger: MateLedger | undefined }) {
  const { edit, resolved, workshop } = useBench('edit', 'resolved', 'workshop');
  const size = sizeOf(mate, resolved);
  const widened = size === null ? mate.want.window : windowForSize(mate.want, size);
  const set = (want: Partial<Want>) =>
    void edit({ kind: 'want', mateId: mate.id, want: { ...mate.want, ...want } });
  const choose = (name: WantName) =>
    set(name === 'own' ? { name } : { name, window: windowFor(workshop, name) });
  const stiff = mate.want.window.unit === 'strain' && !resolved.material.flexible && mate.soft !== 'theirs';
  return (
    <>
      <Cards
        aria-label="How it should feel"
        selectionMode="single"
        disallowEmptySelection
        selectedKeys={[mate.want.name]}
        onSelectionChange={keys => choose([...keys][0] as WantName)}
      >
        {WANTS.map(name => (
          <ToggleButton key={name} id={name} aria-label={`${name}: ${WANT_WORDS[name]}`}>
            <WantPicture want={name} side={mate.side} />
            <span>{name}</span>
            <small>{windowWords(windowFor(workshop, name))}</small>
          </ToggleButton>
        ))}
      </Cards>
      <Under>
        <div>
          <p>
            <b>{mate.want.name}</b>: {WANT_WORDS[mate.want.name]}.
            {widened.max !== mate.want.window.max
              ? ` On something this large it widens to ${windowWords(widened)} mm.`
              : ''}
          </p>
          {ledger ? <GapPicture ledger={ledger} /> : null}
          {mate.want.window.unit === 'strain' ? (
            <Select
              label="Which side gives"
              value={mate.soft === 'none' ? 'ours' : mate.soft}
              options={[
                { value: 'ours', label: 'our part' },
                { value: 'theirs', label: 'the object: a rubber boot, a hose' },
              ]}
              onChange={soft => void edit({ kind: 'want', mateId: mate.id, want: mate.want, soft })}
            />
          ) : null}
        </div>
        <OwnWindow key={mate.id} mate={mate} size={size} />
        {sourceOf(mate, resolved) === 'old-part' ? <Wear key={mate.id} mate={mate} /> : null}
        <Select
          label="If it misses"
          value={mate.want.prefer}
          options={PREFERENCES}
          onChange={prefer => set({ prefer })}
        />
      </Under>
      {stiff ? (
        <div style={{ marginBottom: 12 }}>
          <Notice level="warn">
            {resolved.material.name} is stiff: it bears {formatPercent(resolved.material.strainLimit)} of
            stretch once. Choose a flexible plastic on Print, or another feel.
          </Notice>
        </div>
      ) : null}
    </>
  );
}

const sizeOf = (mate: FitMate, resolved: ResolvedPart): number | null =>
  (mate.other.of === 'object'
    ? resolved.dimensions.get(mate.other.dimension)?.evaluation?.value
    : undefined) ?? null;

const sourceOf = (mate: FitMate, resolved: ResolvedPart) =>
  mate.other.of === 'object' ? resolved.dimensions.get(mate.other.dimension)?.source : null;

/** An old part is copied, and the copy gets back what it has worn. */
function Wear({ mate }: { mate: FitMate }) {
  const { edit } = useBench('edit');
  return (
    <CommittedField
      label="The old part has worn by, mm"
      value={formatPlain(mate.want.wear ?? 0, 3)}
      hint="Across the whole width; 0 copies it as it is."
      check={text => {
        const typed = parseQuantity(text, 'length');
        if (!typed.ok) return typed.message;
        return typed.quantity.value < 0 || typed.quantity.value > 10 ? 'From 0 to 10 mm.' : undefined;
      }}
      onCommit={text => {
        const typed = parseQuantity(text, 'length');
        if (typed.ok)
          void edit({ kind: 'want', mateId: mate.id, want: { ...mate.want, wear: typed.quantity.value } });
      }}
    />
  );
}

/** Jaws can stand in for a rigid surface that slides over another; not for a stretch, a thread or a filled gap. */
const canBeFelt = (mate: FitMate, ledger: MateLedger) =>
  mate.want.window.unit === 'mm' &&
  ledger.reading.source === 'seat' &&
  ['drop-on', 'slide', 'snug', 'press', 'own'].includes(mate.want.name);

function NextPrint({ ledger }: { ledger: MateLedger }) {
  return (
    <>
      <Panel>
        <Row $between>
          <h2>The next print, most likely</h2>
          {ledger.tooLarge ? (
            <span className="soft">larger than the bed: no chance is given</span>
          ) : (
            <span>
              <Big style={{ color: 'var(--right)' }}>{formatPercent(ledger.pRight)}</Big>{' '}
              <span className="soft">sits right</span>
            </span>
          )}
        </Row>
        <ClearanceCurve ledger={ledger} />
        <p className="soft" style={{ fontSize: 14 }}>
          {ledger.reason}
        </p>
      </Panel>
      <Panel>
        <h3>Where the doubt comes from</h3>
        <Doubts>
          {ledger.doubts.map((d, i) => (
            <i
              key={d.name}
              style={{ width: `${100 * d.share}%`, background: `var(--blue${i === 0 ? '' : `-${i + 1}`})` }}
            />
          ))}
        </Doubts>
        <Legend>
          {ledger.doubts.map((d, i) => (
            <span key={d.name}>
              <i style={{ background: `var(--blue${i === 0 ? '' : `-${i + 1}`})` }} />
              {d.name}, {formatPercent(d.share)}
            </span>
          ))}
        </Legend>
        <SurerPanel ledger={ledger} />
      </Panel>
    </>
  );
}

function Unmeasured({ mate }: { mate: FitMate }) {
  const { document } = useBench('document');
  if (mate.other.of === 'part') {
    const { part } = mate.other;
    return (
      <Empty title="The other part has no number yet">
        Its number comes when that surface of{' '}
        {document.parts.find(p => p.id === part)?.name ?? 'the other part'} has its own: measure what that
        part goes on, or give it a size on Shape.
      </Empty>
    );
  }
  return (
    <NotRead dimensionId={mate.other.dimension}>
      With one reading there is a model number; with three there is one to trust.
    </NotRead>
  );
}

function windowWords(window: Want['window']): string {
  const show = (x: number) =>
    window.unit === 'strain' ? formatPlain(100 * x, 1) : x.toFixed(2).replace('-', '−');
  return `${show(window.min)}…${show(window.max)}${window.unit === 'strain' ? ' %' : ''}`;
}

const Tabs = styled(ToggleButtonGroup)`
  display: flex; flex-wrap: wrap; gap: 6px; margin-bottom: 14px;
  button { background: var(--sheet); color: var(--ink); border: 1px solid var(--rule); border-radius: 4px; padding: 7px 13px; cursor: pointer; font: 500 15px ${FONTS.text}; }
  button[data-selected] { background: var(--tint); border-color: var(--blue); color: var(--blue); font-weight: 600; }
`;
const Cards = styled(ToggleButtonGroup)`
  display: grid; grid-template-columns: repeat(7, minmax(0, 1fr)); gap: 6px; margin-bottom: 12px;
  button {
    min-width: 0; background: var(--sheet); border: 2px solid transparent; box-shadow: inset 0 0 0 1px var(--rule); border-radius: 5px; padding: 4px 3px 4px; cursor: pointer;
    display: flex; flex-direction: column; align-items: center; color: var(--ink); font: 14px ${FONTS.text};
  }
  button[data-selected] { border-color: var(--blue); background: var(--raised); box-shadow: none; font-weight: 600; }
  small { color: var(--soft); font: 11.5px ${FONTS.number}; white-space: nowrap; letter-spacing: -0.4px; }
  @media (max-width: 760px) { grid-template-columns: repeat(4, minmax(0, 1fr)); }
`;
const Under = styled.div`
  display: grid; grid-template-columns: minmax(140px, 1fr) auto minmax(180px, 220px); gap: 18px; align-items: start; margin-bottom: 14px;
  > div > p { font-size: 14.5px; margin-bottom: 8px; }
  @media (max-width: 760px) { grid-template-columns: 1fr; }
`;
const Doubts = styled.div`display: flex; height: 14px; border-radius: 2px; overflow: hidden; margin: 8px 0 6px;`;
const Legend = styled.div`
  display: flex; flex-wrap: wrap; gap: 4px 20px; font-size: 13.5px; color: var(--soft); margin-bottom: 10px;
  i { display: inline-block; width: 10px; height: 10px; margin-right: 6px; border-radius: 2px; }
`;
