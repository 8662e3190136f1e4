import { Check, FileSearch, TriangleAlert } from 'lucide-react';
import { useState } from 'react';
import { DropZone, FileTrigger, isFileDropItem } from 'react-aria-components';
import styled from 'styled-components';
import type { Print, Version } from '../../../../core/job/history';
import type { MateInFile } from '../../../../core/print/gcode/mates-in-file';
import { rulesOf } from '../../../../core/print/of-printer';
import { isSameDirection } from '../../../../core/print/pose';
import { poseInWords } from '../../../../core/print/pose-words';
import { formatHours, formatPlain } from '../../../../core/quantity/format';
import { versionWords } from '../../../../core/work/show';
import { useBench } from '../../../job/bench-context';
import { Button } from '../../../ui/controls';
import { Notice, Row, Stack } from '../../../ui/layout';
import type { Sliced } from '../../../workers/solid-protocol';
import { MateLayers } from './MateLayers';
import { useSliced } from './use-sliced';

/** What a file fills into the print's record. */
export interface SlicedFigures {
  pieces: number;
  grams: number | null;
  note: string;
  /** Mirrored, it is the other hand. */
  hand: Print['hand'];
  lineWidth: number;
  /** How far its outlines are outside those drawn, per side, mm; 0 where they agree. */
  moved: number;
}

/** Proof that the right file goes to the printer: the slicing program's file, read back. */
export function SlicedFile({
  version,
  onFigures,
}: {
  version: Version;
  onFigures(figures: SlicedFigures): void;
}) {
  const { resolved, workshop } = useBench('resolved', 'workshop');
  const printer = workshop.printers.find(p => p.id === version.printerId) ?? resolved.printer;
  const versions = resolved.versions.filter(v => v.partId === version.partId).toReversed();
  const { state, read, stop } = useSliced(version, versions, rulesOf(printer));
  return (
    <Zone
      getDropOperation={() => 'copy'}
      onDrop={event => {
        const item = event.items.find(isFileDropItem);
        if (item) void item.getFile().then(read);
      }}
    >
      <Row $between $wrap>
        <Quiet>
          <FileSearch size={16} aria-hidden />
          <span>Sliced already? Drop the G-code here: is it this version, as it was meant?</span>
        </Quiet>
        <FileTrigger
          acceptedFileTypes={['.gcode', '.gco', '.g', '.nc', 'text/x.gcode']}
          onSelect={files => {
            const file = files?.[0];
            if (file) void read(file);
          }}
        >
          <Button $small>Choose the file</Button>
        </FileTrigger>
      </Row>
      {state.is === 'reading' ? (
        <Row>
          <progress aria-label={`Reading ${state.name}`} value={state.share} max={1} />
          <span role="status">
            {state.share < 0.99 && state.share > 0 ? 'Reading it…' : 'Comparing it with the versions…'}
          </span>
          <Button $small $look="quiet" onPress={stop}>
            Stop
          </Button>
        </Row>
      ) : null}
      {state.is === 'refused' ? (
        <Notice level="stop">
          {state.name}: {state.message}
        </Notice>
      ) : null}
      {state.is === 'read' ? (
        <Found sliced={state.sliced} version={version} versions={versions} onFigures={onFigures} />
      ) : null}
    </Zone>
  );
}

function Found({
  sliced,
  version,
  versions,
  onFigures,
}: {
  sliced: Sliced;
  version: Version;
  versions: readonly Version[];
  onFigures(figures: SlicedFigures): void;
}) {
  const { document, resolved, work, workshop } = useBench('document', 'resolved', 'work', 'workshop');
  const { looked, minutes, volume, said } = sliced;
  const { match, findings } = looked;
  const material = workshop.materials.find(m => m.id === version.materialId) ?? resolved.material;
  const grams = said.grams ?? (volume / 1000) * material.density;
  const named = versions.find(v => v.id === match?.id);
  const ticks = match ? ticksOf() : [];
  function ticksOf(): string[] {
    const lines: string[] = [];
    if (named?.id === version.id)
      lines.push(`It is ${versionWords(version.number, version.partId, document)}`);
    else if (match!.id === null) lines.push('It is one of several versions that are alike');
    if (match!.found > 0 && isSameDirection(match!.down, version.pose.down))
      lines.push(`Lies as planned, ${poseInWords({ down: match!.down, turn: match!.turn })}`);
    if (!findings.some(f => f.code === 'scaled' || f.code === 'stretched'))
      lines.push(`Scale ${match!.scale.toFixed(3)}`);
    if (!match!.mirrored) lines.push('Not mirrored');
    if (match!.copies > 1) lines.push(`${match!.copies} of them on the bed`);
    return lines;
  }
  const nameOf = (surface: string) =>
    (named &&
      (named.mates.find(m => m.surface === surface)?.own?.name ??
        work.recipeOf(named).mates.find(m => m.id === surface)?.name)) ??
    surface;
  const note = `layers of ${formatPlain(looked.layerHeight)}, lines of ${formatPlain(looked.lineWidth)}`;
  return (
    <Stack $gap={6} style={{ marginTop: 8 }}>
      <Ticks>
        {ticks.map(line => (
          <li key={line}>
            <Check size={15} aria-hidden /> {line}
          </li>
        ))}
      </Ticks>
      {named
        ? looked.mates
            .filter(m => m.size !== null)
            .map(m => <MateLine key={m.surface} mate={m} name={nameOf(m.surface)} width={looked.lineWidth} />)
        : null}
      {findings.map(f => (
        <Notice key={f.code} level={f.level}>
          {f.code === 'other-version' && named
            ? `This is ${versionWords(named.number, named.partId, document)}, not ${versionWords(version.number, version.partId, document)}: export the right file again and slice that.`
            : `${f.surface ? `“${nameOf(f.surface)}”: ` : ''}${f.message}`}
        </Notice>
      ))}
      <Row $between $wrap>
        <Quiet>
          {looked.layers} layers, {note} mm; {formatHours(minutes / 60)} by its moves
          {said.minutes ? ` (its own words: ${formatHours(said.minutes / 60)})` : ''}, {formatPlain(grams, 1)}{' '}
          g.
        </Quiet>
        <Button
          $small
          onPress={() =>
            onFigures({
              pieces: match?.copies ?? 1,
              grams: Number(grams.toFixed(1)),
              note,
              hand: match?.mirrored ? 'other' : 'drawn',
              lineWidth: looked.lineWidth,
              moved: findings.some(f => f.code === 'moved-outline') ? (match?.moved ?? 0) : 0,
            })
          }
        >
          Take its figures
        </Button>
      </Row>
    </Stack>
  );
}

/** A surface that differs by more than this in the file is reported, mm. */
const AS_DRAWN = 0.03;

function MateLine({ mate, name, width }: { mate: MateInFile; name: string; width: number }) {
  const [open, setOpen] = useState(false);
  const off = Math.abs(mate.size! - mate.drawn) > AS_DRAWN;
  return (
    <div>
      <MateRow $off={off}>
        {off ? <TriangleAlert size={15} aria-label="Not as drawn" /> : <Check size={15} aria-hidden />}
        <span>
          <b>{name}</b>: {mate.size!.toFixed(2)} in the file, {mate.drawn.toFixed(2)} drawn;{' '}
          {mate.inLayers
            ? 'it comes in whole layers'
            : `${mate.passes} ${mate.passes === 1 ? 'pass' : 'passes'} beside it`}
        </span>
        {mate.layers.length > 0 ? (
          <Button $small $look="quiet" aria-expanded={open} onPress={() => setOpen(!open)}>
            {open ? 'Close' : 'Its layers'}
          </Button>
        ) : null}
      </MateRow>
      {open ? <MateLayers mate={mate} name={name} width={width} /> : null}
    </div>
  );
}

const MateRow = styled.div<{ $off: boolean }>`
  display: grid; grid-template-columns: 16px minmax(0, 1fr) auto; gap: 6px; align-items: center; font-size: 14.5px;
  svg { color: var(--${p => (p.$off ? 'loose' : 'right')}); }
`;
const Zone = styled(DropZone)`
  margin-top: 12px; padding-top: 12px; border-top: 1px solid var(--rule);
  &[data-drop-target] { outline: 2px dashed var(--blue); outline-offset: 4px; }
`;
const Quiet = styled.span`color: var(--soft); font-size: 14px; display: inline-flex; gap: 6px; align-items: flex-start; flex: 1; min-width: 200px; svg { flex: none; margin-top: 2px; }`;
const Ticks = styled.ul`
  list-style: none; margin: 0; padding: 0; font-size: 14.5px; display: grid; grid-template-columns: repeat(auto-fill, minmax(190px, 1fr)); gap: 2px 12px;
  li { display: flex; gap: 6px; align-items: center; } svg { color: var(--right); flex: none; }
`;
