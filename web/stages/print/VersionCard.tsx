import { Download } from 'lucide-react';
import { useState } from 'react';
import { BenchPrint } from '../../../contract/bench';
import { FILE_KINDS } from '../../../core/files/part-files';
import { counting, type Version } from '../../../core/job/history';
import { FAILURE_WORDS } from '../../../core/learn/happened';
import {
  capital,
  formatHours,
  formatLength,
  formatPercent,
  formatPlain,
} from '../../../core/quantity/format';
import { partAsIn } from '../../../core/work/back-to';
import { runningPrints } from '../../../core/work/running';
import { versionWords } from '../../../core/work/show';
import { post } from '../../api/client';
import { useBench } from '../../job/bench-context';
import { Button, MenuButton } from '../../ui/controls';
import { FileButton } from '../../ui/FileButton';
import { FileLink } from '../../ui/FileLink';
import { Panel, Row } from '../../ui/layout';
import { BatchLines } from './Batch';
import { Numbers } from './Numbers';
import { OnPrinter } from './OnPrinter';
import { OtherFiles } from './OtherFiles';
import { RecordPrintForm } from './RecordPrintForm';
import { type SlicedFigures, SlicedFile } from './sliced/SlicedFile';
import { TestSlices } from './slices/TestSlices';
import { VersionNote } from './VersionNote';

/** What the practice printer noticed about its file; empty where it is right. */
const filedWords = ({ scale, mirrored }: { scale: number; mirrored: boolean }): string =>
  [
    Math.abs(scale - 1) > 0.0005 ? `, ${formatPlain(scale, 3)} times as large as drawn` : '',
    mirrored ? ', the other hand' : '',
  ].join('');

/** A version that was made: its numbers, its files, and its prints. */
export function VersionCard({ version, open }: { version: Version; open: boolean }) {
  const { job, document, work, workshop, resolved, session, say, edit, go } = useBench(
    'edit',
    'go',
    'job',
    'document',
    'work',
    'workshop',
    'resolved',
    'session',
    'say',
  );
  const [figures, setFigures] = useState<SlicedFigures | null>(null);
  const recipe = work.recipeOf(version);
  const prints = counting(resolved.history).prints.filter(
    p => p.versionId === version.id && p.slice === null,
  );
  const running = runningPrints(resolved.history).filter(r => r.version.id === version.id);
  const material = workshop.materials.find(m => m.id === version.materialId)?.name ?? 'unknown plastic';
  /** @param file right or wrong: it prints what it is given */
  const practice = async (mayFail: boolean, file?: File) => {
    const wish = { versionId: version.id, mayFail };
    const at = `/bench/jobs/${job.id}/print`;
    try {
      const { hours, failed, filed } = file
        ? await post(
            `${at}?versionId=${version.id}`,
            BenchPrint,
            new Blob([file], { type: 'application/octet-stream' }),
          )
        : await post(at, BenchPrint, wish);
      await session.refresh();
      const took = hours === null ? '' : ` after ${formatHours(hours)} of its own time`;
      if (failed)
        say(`The practice printer failed${took}: ${FAILURE_WORDS[failed]}. Print it again.`, 'stop');
      else say(`The practice printer made one${took}${filed ? filedWords(filed) : ''}. Try it on.`);
    } catch (error) {
      say((error as Error).message, 'stop');
    }
  };
  return (
    <Panel>
      <Row $between $wrap>
        <h3>
          {capital(versionWords(version.number, version.partId, document))}{' '}
          <small className="soft">{material}</small>
        </h3>
        <span className="soft" style={{ fontSize: 14 }}>
          {prints.length === 0
            ? 'not printed yet'
            : `printed ${prints.length === 1 ? 'once' : `${prints.length} times`}`}
        </span>
      </Row>
      <Numbers>
        {version.mates.map(m => (
          <li key={m.mateId}>
            <span>{m.own?.name ?? recipe.mates.find(s => s.id === m.surface)?.name ?? m.surface}</span>
            <b className="number">{formatLength(m.model)}</b>
            <span className="soft">{formatPercent(m.pRight)}</span>
          </li>
        ))}
        {version.signed.map(m => (
          <li key={m.mateId}>
            <span>{m.name}</span>
            <b className="number">{m.model.toFixed(2)}</b>
            <span className="soft">{formatPercent(m.pRight)}</span>
          </li>
        ))}
      </Numbers>
      <Row $wrap>
        {FILE_KINDS.filter(kind => !version.without[kind]).map(kind => (
          <FileLink key={kind} href={`/api/jobs/${job.id}/versions/${version.id}/files/${kind}`} download>
            <Download size={15} aria-hidden /> {kind.toUpperCase()}
          </FileLink>
        ))}
        {workshop.practiceBench ? (
          <MenuButton
            label="Practice printer"
            items={[
              { id: 'sure', label: 'print one' },
              { id: 'may-fail', label: 'print one that may fail' },
            ]}
            onChoose={how => void practice(how === 'may-fail')}
          />
        ) : null}
        {workshop.practiceBench ? (
          <FileButton
            label="A file for the practice printer"
            accept=".3mf,.stl"
            onFile={file => void practice(false, file)}
          >
            Practice: print a file
          </FileButton>
        ) : null}
        {open || version.recipe !== resolved.part.recipe ? null : (
          <Button
            $small
            $look="quiet"
            onPress={() =>
              void edit({
                kind: 'back-to',
                partId: version.partId,
                version: version.number,
                base: { version: version.id, over: resolved.versions.at(-1)!.id },
                ...partAsIn(version, recipe),
              }).then(done => (done ? go('shape') : undefined))
            }
          >
            Go on from this version
          </Button>
        )}
      </Row>
      {Object.entries(version.without).map(([kind, why]) => (
        <p key={kind} className="soft" style={{ fontSize: 14 }}>
          No {kind.toUpperCase()} of it: {why}
        </p>
      ))}
      <VersionNote version={version} />
      {open ? <BatchLines version={version} /> : null}
      <OtherFiles path={`/api/jobs/${job.id}/versions/${version.id}/files`} version={version} />
      {open ? <TestSlices key={`slices ${version.id}`} version={version} /> : null}
      {open ? <SlicedFile key={`sliced ${version.id}`} version={version} onFigures={setFigures} /> : null}
      <OnPrinter running={running} />
      {open || running.length > 0 ? (
        <RecordPrintForm key={version.id} version={version} figures={figures} />
      ) : null}
    </Panel>
  );
}
