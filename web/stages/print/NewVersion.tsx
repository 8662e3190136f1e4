import { useState } from 'react';
import styled from 'styled-components';
import { same } from '../../../core/job/changes';
import type { Version } from '../../../core/job/history';
import { supportFindings } from '../../../core/print/support-findings';
import { capital, formatLength, formatPercent } from '../../../core/quantity/format';
import type { Finding } from '../../../core/shape/findings/finding';
import { acceptedAs, acceptedFor, isAccepted } from '../../../core/shape/findings/finding';
import { showChance, versionWords } from '../../../core/work/show';
import { ServerSaid } from '../../api/client';
import { useBench } from '../../job/bench-context';
import { useSolid } from '../../solid/use-solid';
import { Button } from '../../ui/controls';
import { Notice, Panel, Row, Stack } from '../../ui/layout';
import { leadsTo } from '../shape/lead-to';
import { AcceptDialog } from './AcceptDialog';
import { FirstPanel } from './FirstPanel';
import { Numbers } from './Numbers';
import { asPlaced } from './poses/use-poses';
import { SplitOffer } from './SplitOffer';
import { useBuild } from './use-build';

/** The numbers of the next version, the findings of its checks, and making it. */
export function NewVersion({ poses }: Pick<Parameters<typeof FirstPanel>[0], 'poses'>) {
  const { document, resolved, session, say, go } = useBench('document', 'resolved', 'session', 'say', 'go');
  const { part, material } = resolved;
  const { findings, refused } = useSolid(resolved.part, resolved.parameters, resolved.checkContext);
  const { build, run, cancel } = useBuild();
  const [stops, setStops] = useState<Finding[] | null>(null);
  const versions = resolved.versions.toReversed();
  // The remark on heat is shown next to the plastic.
  const cautions = resolved.cautions.filter(c => c.code !== 'heat');
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
  // An acceptance holds while its cause does.
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
  const shaky = resolved.measureAgain;
  const { ranked } = asPlaced(poses, part.pose);
  const weak = ranked?.plan.weakest ? [ranked.plan.weakest.at] : [];
  const all = [
    ...cautions,
    ...resolved.unsaid,
    ...(findings ?? []),
    ...(ranked ? supportFindings(ranked.plan) : []),
  ];
  return (
    <>
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
        {unchanged ? null : (
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
        )}
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
                f.code === 'bed' && f.fields.what === '' ? (
                  <SplitOffer weak={weak} />
                ) : leadsTo(f) && f.level !== 'note' ? (
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
        {unchanged ? null : <FirstPanel poses={poses} />}
      </Panel>
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

/** The findings that came with a refusal. */
const stopsIn = (details: unknown): Finding[] =>
  ((details as { findings?: Finding[] }).findings ?? []).filter(f => f.level === 'stop');

const numberOf = ({ model, unit }: { model: number; unit: 'mm' | 'deg' }) =>
  `${model.toFixed(2)}${unit === 'deg' ? '°' : ''}`;

const Progress = styled.div`display: flex; align-items: center; gap: 12px; margin-top: 8px; font-size: 14.5px;`;
