import { useState } from 'react';
import styled from 'styled-components';
import type { Version } from '../../../../core/job/history';
import { machineOf, settingsOf, takesOf } from '../../../../core/print/of-printer';
import { sliceSaves } from '../../../../core/print/worth';
import { formatHours, formatPlain } from '../../../../core/quantity/format';
import { usePace } from '../../../api/use-pace';
import { useBench } from '../../../job/bench-context';
import { kernelLine } from '../../../solid/kernel-worker';
import { Button } from '../../../ui/controls';
import { FilesOf } from '../../../ui/FilesOf';
import { Notice, Row } from '../../../ui/layout';
import type { ShownSlice } from '../../../workers/solid-protocol';
import { PngPicture } from '../PngPicture';

type Found = { slices: ShownSlice[]; hours: number } | Error | 'busy' | null;

/**
 * Slices of a version that carry one surface each, or several near each other: printed first, where the part takes long
 * and may be wrong.
 */
export function TestSlices({ version }: { version: Version }) {
  const { workshop } = useBench('workshop');
  const printer = workshop.printers.find(p => p.id === version.printerId) ?? workshop.printers[0]!;
  const material = workshop.materials.find(m => m.id === version.materialId) ?? workshop.materials[0]!;
  const pace = usePace(printer);
  const [found, setFound] = useState<Found>(null);
  if (version.mates.length === 0) return null;
  const cut = async () => {
    setFound('busy');
    const { recipe, additions, parameters } = version;
    const asked = {
      now: version.pose,
      settings: settingsOf(printer, version.quality),
      machine: machineOf(printer),
    };
    try {
      const answer = await kernelLine('slices').ask(api =>
        api.slices(
          { recipe, additions, parameters },
          version.mates.map(m => m.surface),
          asked,
        ),
      );
      if (!answer) return;
      setFound(
        answer.ok
          ? { slices: answer.slices, hours: takesOf(answer.whole, pace, material).hours }
          : new Error(answer.findings[0]?.message ?? 'The solid could not be built.'),
      );
    } catch (error) {
      setFound(error as Error);
    }
  };
  if (found === null || found === 'busy')
    return (
      <Row style={{ marginTop: 10 }}>
        <Button $small $look="quiet" isDisabled={found === 'busy'} onPress={() => void cut()}>
          {found === 'busy' ? 'Cutting slices…' : 'Test one surface first: cut slices'}
        </Button>
      </Row>
    );
  if (found instanceof Error) return <Notice level="warn">{found.message}</Notice>;
  return (
    <Rows>
      {found.slices.map(slice => (
        <Slice
          key={slice.surfaces.join()}
          slice={slice}
          version={version}
          whole={found.hours}
          takes={slice.ok ? takesOf(slice.estimate, pace, material) : null}
        />
      ))}
    </Rows>
  );
}

function Slice({
  slice,
  version,
  whole,
  takes,
}: {
  slice: ShownSlice;
  version: Version;
  /** Hours for the whole part. */
  whole: number;
  takes: { hours: number; grams: number } | null;
}) {
  const { job, work, session, say, go } = useBench('job', 'work', 'session', 'say', 'go');
  const [sending, setSending] = useState(false);
  const mates = slice.surfaces.map(surface => version.mates.find(m => m.surface === surface)!);
  const nameOf = (surface: string) =>
    mates.find(m => m.surface === surface)?.own?.name ??
    work.recipeOf(version).mates.find(r => r.id === surface)?.name ??
    surface;
  const name = mates.map(m => nameOf(m.surface)).join(' and ');
  if (!slice.ok || !takes)
    return (
      <li>
        <strong>{name}</strong>
        <span className="soft">{slice.ok ? '' : slice.why}</span>
      </li>
    );
  const pRight = mates.reduce((all, m) => all * m.pRight, 1);
  const saves = sliceSaves(pRight, 60 * takes.hours, 60 * whole);
  const path = `/api/jobs/${job.id}/versions/${version.id}/slices/${mates.map(m => m.mateId).join(',')}/slice`;
  const printed = async () => {
    setSending(true);
    try {
      await session.append('prints', () => ({
        versionId: version.id,
        pieces: 1,
        hours: null,
        grams: null,
        note: '',
        failed: null,
        slice: mates.map(m => m.mateId),
      }));
      go('try');
    } catch (error) {
      say((error as Error).message, 'stop');
    } finally {
      setSending(false);
    }
  };
  return (
    <li>
      <PngPicture bytes={slice.picture} alt={`Slice that carries ${name}`} height={64} />
      <div>
        <strong>{name}</strong>
        {mates.length > 1 ? ', in one piece' : ''}: {formatHours(takes.hours)} and{' '}
        {formatPlain(takes.grams, 1)} g, instead of {formatHours(whole)}.{' '}
        {saves > 0
          ? `First the slice saves ${formatHours(saves / 60)} on the average.`
          : 'The whole part is likely enough right to print it at once.'}
        {slice.says.map(({ mate, words }) => (
          <p key={mate + words} className="soft">
            {mates.length > 1 ? `${nameOf(mate)}: ${words.charAt(0).toLowerCase()}${words.slice(1)}` : words}
          </p>
        ))}
        <Row $wrap style={{ marginTop: 4 }}>
          <FilesOf at={path} />
          <Button $small isDisabled={sending} onPress={() => void printed()}>
            The slice is printed
          </Button>
        </Row>
      </div>
    </li>
  );
}

const Rows = styled.ul`
  list-style: none; margin: 10px 0 0; padding: 10px 0 0; border-top: 1px solid var(--rule); font-size: 14px;
  li { display: flex; gap: 10px; align-items: flex-start; padding: 6px 0; }
  li > strong { flex: none; }
  li > div:last-child { flex: 1; min-width: 0; }
  p { margin-top: 3px; }
`;
