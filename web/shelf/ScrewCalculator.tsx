import { useState } from 'react';
import {
  insertBoss,
  LEAST_LAYERS,
  type PrintedThread,
  printedThread,
  selfCuttingBoss,
  type ThreadNumbers,
  taperBossWall,
  threadWays,
} from '../../core/fit/screw';
import { formatPlain } from '../../core/quantity/format';
import { threadNamed } from '../../core/shelf/threads';
import { Checkbox, Select, TextField } from '../ui/controls';
import { Notice, Panel, Stack } from '../ui/layout';
import { Facts, FieldGrid, numberOf, TwoColumns } from './calculator';
import { ThreadSection } from './ThreadSection';

const WAYS = {
  print: 'Print the thread',
  tap: 'Tap it',
  insert: 'Melt in an insert',
  nut: 'Pass through to a nut',
};

/** A screw in plastic: the best way to hold it, the numbers of a printed thread, and the boss around it. */
export function ScrewCalculator() {
  const [name, setName] = useState('M20');
  const [texts, setTexts] = useState({
    major: '110',
    minor: '100',
    pitch: '13',
    starts: '1',
    crest: '2',
    clearance: '0.4',
    layer: '0.2',
    pull: '20',
  });
  const [side, setSide] = useState<PrintedThread['side']>('internal');
  const [hand, setHand] = useState<PrintedThread['hand']>('right');
  const [often, setOften] = useState(false);
  const odd = name.trim() === '';
  const standard = odd ? undefined : threadNamed(name);
  const field = (
    key: keyof typeof texts,
    label: string,
    kind: 'length' | 'count' = 'length',
    hint?: string,
  ) => (
    <TextField
      label={label}
      value={texts[key]}
      onChange={text => setTexts(now => ({ ...now, [key]: text }))}
      problem={numberOf(texts[key], kind).problem}
      hint={hint}
      autoComplete="off"
    />
  );
  const value = (key: keyof typeof texts) =>
    numberOf(texts[key], key === 'starts' ? 'count' : 'length').value;
  const thread: PrintedThread | null =
    odd || standard
      ? {
          major: standard?.major ?? value('major') ?? 0,
          minor: standard?.minorInternal ?? value('minor') ?? 0,
          pitch: standard?.pitch ?? value('pitch') ?? 0,
          starts: odd ? Math.round(value('starts') ?? 0) : 1,
          hand,
          side,
          flankAngle: standard?.flankAngle ?? 30,
          clearance: value('clearance') ?? 0,
          crestRadius: odd ? (value('crest') ?? 0) : 0,
        }
      : null;
  const layer = value('layer');
  const outcome = thread && layer ? attempt(thread, layer) : null;
  const numbers = outcome && !('problem' in outcome) ? outcome : null;
  const ways =
    thread && numbers && layer
      ? threadWays({ diameter: thread.major, pitch: thread.pitch, layer, often, pull: value('pull') ?? 0 })
      : [];
  const metric = /^M\d/i.test(name.trim()) ? name.trim().toUpperCase().replace(/X.*/, '') : null;
  const insert = metric ? insertBoss(metric) : undefined;
  const boss = thread && thread.major <= 8 ? selfCuttingBoss(thread.major) : null;
  return (
    <TwoColumns>
      <Stack $gap={10}>
        <TextField
          label="Thread on the shelf"
          value={name}
          onChange={setName}
          hint="M6, M20, G 1/4, 1/4 NPT, 3/4-11.5 NH; empty for one measured"
          problem={
            odd || standard
              ? undefined
              : 'The shelf has no such thread: empty the field and give its numbers.'
          }
          autoComplete="off"
        />
        <FieldGrid>
          {odd ? (
            <>
              {field('major', 'Over the ridges, mm')}
              {field('minor', 'Between them, mm')}
              {field('pitch', 'Pitch, mm')}
              {field('starts', 'Starts', 'count')}
              {field('crest', 'Rounding of its crest, mm')}
            </>
          ) : null}
          <Select
            label="Ours is"
            value={side}
            options={[
              { value: 'internal', label: 'the nut, internal' },
              { value: 'external', label: 'the screw, external' },
            ]}
            onChange={s => setSide(s)}
          />
          <Select
            label="Hand"
            value={hand}
            options={[
              { value: 'right', label: 'right: clockwise goes in' },
              { value: 'left', label: 'left: anticlockwise goes in' },
            ]}
            onChange={h => setHand(h)}
          />
          {field('clearance', 'Clearance across, mm', 'length', '0.25 to 0.55 by hand; 2 on a coarse 110')}
          {field('layer', 'Layers, mm')}
          {field('pull', 'Pull along the screw, N')}
        </FieldGrid>
        <Checkbox isSelected={often} onChange={setOften}>
          Undone often
        </Checkbox>
      </Stack>
      <Panel aria-live="polite">
        {numbers && thread ? (
          <>
            <ol style={{ margin: '0 0 10px', paddingLeft: 20 }} data-testid="thread-ways">
              {ways.map(w => (
                <li key={w.way}>
                  <b>{WAYS[w.way]}.</b> {w.words}
                </li>
              ))}
            </ol>
            <ThreadSection thread={thread} numbers={numbers} />
            <Facts rows={rowsOf(thread, numbers)} />
            {numbers.layersPerPitch < LEAST_LAYERS ? (
              <Notice level="warn">
                {formatPlain(numbers.layersPerPitch, 1)} layers to a pitch: below {LEAST_LAYERS} the ridges
                print as stairs and bind. Tap it, or take an insert.
              </Notice>
            ) : null}
            {standard?.taper ? (
              <Notice level="warn">
                A taper thread wedges its boss apart: give it {formatPlain(taperBossWall(numbers.depth), 1)}{' '}
                mm of wall, or take an insert, or a parallel thread with a seal. Under pressure only by local
                rules.
              </Notice>
            ) : null}
          </>
        ) : (
          <p className="soft">
            {outcome && 'problem' in outcome
              ? outcome.problem
              : 'Fill in the numbers: the answer appears here.'}
          </p>
        )}
        {boss && numbers ? (
          <p data-testid="screw-boss">
            <b>Cutting its own way:</b> hole {formatPlain(boss.hole, 2)}, {formatPlain(boss.depth, 1)} deep,
            boss {formatPlain(boss.outside, 1)} mm. {boss.words}
          </p>
        ) : null}
        {insert && numbers ? (
          <p data-testid="insert-boss">
            <b>Brass insert:</b> hole {formatPlain(insert.hole, 2)}, {formatPlain(insert.depth, 1)} deep, boss{' '}
            {formatPlain(insert.outside, 1)} mm. {insert.words}
          </p>
        ) : null}
        <p className="soft" style={{ fontSize: 13 }}>
          Sizes as wanted; the printer’s own error comes on top, by the ledger. Rules of thumb: common
          practice, no source.
        </p>
      </Panel>
    </TwoColumns>
  );
}

function attempt(thread: PrintedThread, layer: number): ThreadNumbers | { problem: string } {
  try {
    return printedThread(thread, layer);
  } catch (error) {
    return { problem: (error as Error).message };
  }
}

function rowsOf(t: PrintedThread, n: ThreadNumbers) {
  const mm = (x: number, digits = 2) => `${formatPlain(x, digits)} mm`;
  return [
    {
      label: t.side === 'internal' ? 'wanted over its grooves' : 'wanted over its ridges',
      value: mm(n.major),
      id: 'thread-major',
    },
    { label: t.side === 'internal' ? 'wanted hole' : 'wanted core', value: mm(n.minor), id: 'thread-minor' },
    { label: 'in one turn', value: `${mm(n.lead)}, ${t.hand}-handed`, id: 'thread-lead' },
    { label: 'ridge', value: `${mm(n.depth)} high, ${formatPlain(n.helix, 1)}° helix` },
    { label: 'play to and fro', value: mm(n.axialPlay), id: 'thread-play' },
    { label: 'lead-in chamfer', value: `${mm(n.leadIn)} at 45°` },
    ...(t.crestRadius > 0
      ? [{ label: 'round our root by', value: mm(n.rootRadius), id: 'thread-root' }]
      : []),
  ];
}
