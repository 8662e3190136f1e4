import { Download } from 'lucide-react';
import { useState } from 'react';
import styled from 'styled-components';
import { BenchPrint } from '../../../contract/bench';
import { FILE_KINDS } from '../../../core/files/part-files';
import { same } from '../../../core/job/changes';
import { counting, type Version } from '../../../core/job/history';
import type { Printer } from '../../../core/job/workshop';
import { settingsOf } from '../../../core/print/of-printer';
import { Quality } from '../../../core/print/settings';
import { capital, formatLength, formatPercent, formatPlain } from '../../../core/quantity/format';
import type { Finding } from '../../../core/shape/findings/finding';
import { acceptedAs, acceptedFor, isAccepted } from '../../../core/shape/findings/finding';
import { partAsIn } from '../../../core/work/back-to';
import { showChance, versionWords } from '../../../core/work/show';
import { post, ServerSaid } from '../../api/client';
import { useBench } from '../../job/bench-context';
import { useSolid } from '../../solid/use-solid';
import { Button, Select } from '../../ui/controls';
import { Empty, Lead, Notice, Panel, Row, Stack } from '../../ui/layout';
import { leadsTo } from '../shape/lead-to';
import { AcceptDialog } from './AcceptDialog';
import { BatchLines } from './Batch';
import { FileLink } from './FileLink';
import { OtherFiles } from './OtherFiles';
import { RecordPrintForm } from './RecordPrintForm';
import { type SlicedFigures, SlicedFile } from './sliced/SlicedFile';
import { TestSlices } from './slices/TestSlices';
import { useBuild } from './use-build';
import { WaysPanel } from './ways/WaysPanel';

/** Behind a plastic's name in the list. */
const SUITS = { suitable: '', doubtful: ' (doubtful here)', no: ' (not for this)' } as const;

/** Plastic, printer and how it lies; the checks; then a version, its files, and the print. */
export function PrintStage() {
  const { document, resolved, workshop, edit, session, say, go } = useBench(
    'document',
    'resolved',
    'workshop',
    'edit',
    'session',
    'say',
    'go',
  );
  const { part, material } = resolved;
  const { findings, refused } = useSolid(resolved.part, resolved.parameters, resolved.checkContext);
  const { build, run, cancel } = useBuild();
  const [stops, setStops] = useState<Finding[] | null>(null);
  const versions = resolved.versions.toReversed();
  // The remark on heat is shown beside the plastic.
  const cautions = resolved.cautions.filter(c => c.code !== 'heat');
  const suits = resolved.suitability;
  // The same numbers again would be the same part under another name.
  const newest = versions[0];
  const unchanged =
    newest !== undefined &&
    same(newest.parameters, resolved.parameters) &&
    same(newest.additions, part.additions) &&
    newest.materialId === material.id &&
    same(newest.pose, part.pose) &&
    newest.quality === part.quality;
  const next = resolved.nextNumber;
  // What was accepted stays so while its cause does.
  const acceptedBefore = (f: Finding) =>
    acceptedFor(
      f,
      versions.flatMap(v => v.accepted),
    );
  const make = (accepted: Version['accepted'] = []) =>
    run(async buildId => {
      try {
        const still = (findings ?? []).flatMap(f => {
          const before = acceptedBefore(f);
          return before && !isAccepted(f, accepted) ? [before] : [];
        });
        await session.append('versions', revision => ({
          revision,
          partId: part.id,
          accepted: [...accepted, ...still],
          buildId,
        }));
        setStops(null);
        say(`Version ${next} is made: take its file to the printer.`);
      } catch (error) {
        const said = error instanceof ServerSaid ? error : null;
        if (said?.code === 'finding') setStops(stopsIn(said.details));
        else say((error as Error).message, said?.code === 'cancelled' ? 'note' : 'stop');
        if (said?.code === 'stale') void session.refresh();
      }
    });
  const all = [...cautions, ...resolved.unsaid, ...(findings ?? [])];
  const shaky = resolved.measureAgain;
  return (
    <>
      <h1>Before hours of printing</h1>
      <Lead>
        A version freezes the numbers as they stand, so that what a print teaches can be traced to them.
      </Lead>
      <Columns>
        <Stack $gap={14}>
          <Panel>
            <Fields>
              <Select
                label="Plastic"
                value={material.id}
                options={workshop.materials.map(m => ({
                  value: m.id,
                  label: `${m.name}${m.flexible ? ', flexible' : ''}${SUITS[resolved.suitabilityOf(m).verdict]}`,
                }))}
                onChange={id => void edit({ kind: 'material', partId: part.id, materialId: id })}
              />
              <Select
                label="Printer"
                value={resolved.printer.id}
                options={workshop.printers.map(p => ({ value: p.id, label: p.name }))}
                onChange={id => void edit({ kind: 'printer', partId: part.id, printerId: id })}
              />
              <Select
                label="Quality"
                value={part.quality}
                options={Quality.options.map(value => ({
                  value,
                  label: qualityWords(value, resolved.printer),
                }))}
                onChange={quality => void edit({ kind: 'quality', partId: part.id, quality })}
              />
            </Fields>
            {suits.reasons.length > 0 ? (
              <Stack $gap={6} style={{ marginTop: 10 }}>
                {suits.reasons.map(r => (
                  <Notice key={r.words} level={r.verdict === 'no' ? 'stop' : 'warn'}>
                    {material.name}: {r.words}.
                  </Notice>
                ))}
              </Stack>
            ) : null}
          </Panel>
          <WaysPanel />
          <Panel>
            <Row $between $wrap>
              <h2>{capital(versionWords(next, part.id, document))}</h2>
              <Button
                data-next
                $look={unchanged ? 'plain' : 'main'}
                isDisabled={build !== null || refused !== null}
                onPress={() => void make()}
              >
                {build ? 'Making it…' : `Make version ${next}`}
              </Button>
            </Row>
            {build ? (
              <Progress>
                <span role="status">{build.step}…</span>
                <Button $small $look="quiet" onPress={() => void cancel()}>
                  Stop
                </Button>
              </Progress>
            ) : null}
            {unchanged ? (
              <p className="soft">The numbers are those of version {newest.number}: nothing new to freeze.</p>
            ) : null}
            <Numbers>
              {resolved.ledger.mates.map(m => (
                <li key={m.mate.id}>
                  <span>{m.mate.name}</span>
                  <b className="number">{formatLength(m.model)}</b>
                  <span className="soft">
                    {showChance(m)}
                    {m.tooLarge ? '' : ' right'}
                  </span>
                </li>
              ))}
              {resolved.ledger.signed.map(m => (
                <li key={m.mate.id}>
                  <span>{m.mate.name}</span>
                  <b className="number">{numberOf(m)}</b>
                  <span className="soft">{formatPercent(m.pRight)} right</span>
                </li>
              ))}
              {resolved.ledger.unread.map(m => (
                <li key={m.id}>
                  <span>{m.name}</span>
                  <b>not measured</b>
                </li>
              ))}
            </Numbers>
            <Stack $gap={6}>
              {findings === null && !refused ? (
                <p className="soft" role="status">
                  Checking the finished solid…
                </p>
              ) : null}
              {shaky.map(({ dimension }) => (
                <Notice
                  key={dimension.id}
                  level="warn"
                  action={
                    <Button $small onPress={() => go('measure', dimension.id)}>
                      Measure it again
                    </Button>
                  }
                >
                  {dimension.label} was read only once, and the fit depends on it.
                </Notice>
              ))}
              {findings !== null && all.length + shaky.length === 0 ? (
                <Notice level="note">The checks on the finished solid found nothing to say.</Notice>
              ) : null}
              {all.map((f, i) => (
                <Notice
                  key={i}
                  level={acceptedBefore(f) ? 'note' : f.level}
                  action={
                    leadsTo(f) && f.level !== 'note' ? (
                      <Button $small onPress={() => go('shape', leadsTo(f))}>
                        Change it
                      </Button>
                    ) : undefined
                  }
                >
                  {f.message}
                  {acceptedBefore(f) ? ` Accepted: ${acceptedBefore(f)!.reason}.` : ''}
                </Notice>
              ))}
            </Stack>
          </Panel>
        </Stack>
        <Stack $gap={14}>
          <h2>Versions</h2>
          {versions.length === 0 ? (
            <Empty title="No version yet">
              Make one when the checks are quiet. Its files come as 3MF, STEP and STL.
            </Empty>
          ) : null}
          {versions.map((version, i) => (
            <VersionCard key={version.id} version={version} open={i === 0} />
          ))}
        </Stack>
      </Columns>
      <AcceptDialog
        key={String(stops !== null)}
        stops={stops}
        onClose={() => setStops(null)}
        onMend={() => {
          setStops(null);
          go('shape', stops?.map(leadsTo).find(Boolean));
        }}
        onAccept={reason => void make((stops ?? []).map(f => acceptedAs(f, reason)))}
      />
    </>
  );
}

const qualityWords = (quality: Quality, printer: Printer) =>
  `${quality}, layers of ${formatPlain(settingsOf(printer, quality).layer)}`;

/** The findings that came with a refusal. */
const stopsIn = (details: unknown): Finding[] =>
  ((details as { findings?: Finding[] }).findings ?? []).filter(f => f.level === 'stop');

function VersionCard({ version, open }: { version: Version; open: boolean }) {
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
  const material = workshop.materials.find(m => m.id === version.materialId)?.name ?? 'unknown plastic';
  const practice = async () => {
    try {
      await post(`/bench/jobs/${job.id}/print`, BenchPrint, { versionId: version.id });
      await session.refresh();
      say('The practice printer made one. Try it on.');
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
          <Button $small onPress={() => void practice()}>
            Practice printer
          </Button>
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
      {open ? <BatchLines version={version} /> : null}
      <OtherFiles path={`/api/jobs/${job.id}/versions/${version.id}/files`} version={version} />
      {open ? <TestSlices key={`slices ${version.id}`} version={version} /> : null}
      {open ? <SlicedFile key={`sliced ${version.id}`} version={version} onFigures={setFigures} /> : null}
      {open ? <RecordPrintForm key={version.id} version={version} figures={figures} /> : null}
    </Panel>
  );
}

const numberOf = ({ model, unit }: { model: number; unit: 'mm' | 'deg' }) =>
  `${model.toFixed(2)}${unit === 'deg' ? '°' : ''}`;

const Columns = styled.div`
  display: grid; grid-template-columns: minmax(0, 1.2fr) minmax(0, 1fr); gap: 18px; max-width: 1180px;
  @media (max-width: 900px) { grid-template-columns: minmax(0, 1fr); }
`;
const Fields = styled.div`display: grid; grid-template-columns: repeat(3, minmax(0, 1fr)); gap: 12px; @media (max-width: 700px) { grid-template-columns: 1fr; }`;
const Progress = styled.div`display: flex; align-items: center; gap: 12px; margin-top: 8px; font-size: 14.5px;`;
const Numbers = styled.ul`
  list-style: none; margin: 10px 0; padding: 0;
  li { display: grid; grid-template-columns: 1fr auto 92px; gap: 12px; padding: 5px 0; border-top: 1px solid var(--rule); align-items: baseline; }
  li > :last-child { text-align: right; font-size: 14px; }
`;
