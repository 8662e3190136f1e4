import { differenceInCalendarDays } from 'date-fns';
import { useState } from 'react';
import type { Version } from '../../../core/job/history';
import { LOOKED_WORDS, type Looked } from '../../../core/job/history/look';
import type { Happening } from '../../../core/job/history/try';
import type { HappeningKind } from '../../../core/learn/happened';
import { capital, formatPercent } from '../../../core/quantity/format';
import type { Place } from '../../../core/shape/vector';
import { failedPiece } from '../../../core/work/service';
import { versionWords } from '../../../core/work/show';
import { useBench } from '../../job/bench-context';
import { VersionSolid } from '../../solid/VersionSolid';
import { Button } from '../../ui/controls';
import { Notice, Panel, Row, Stack } from '../../ui/layout';
import { WhatItMeans } from '../try/WhatItMeans';

/** What a failure in service corresponds to at a try, so that the same causes are listed. */
const LIKE: Partial<Record<Looked, HappeningKind>> = { cracked: 'cracked', broke: 'cracked', leaks: 'leaks' };

/** A piece that failed: what was found, what was known of it, and the way to the next version. */
export function FailedPanel() {
  const { resolved, document, go } = useBench('resolved', 'document', 'go');
  const failed = failedPiece(resolved.history, document.service.since);
  if (!failed) return null;
  const { look, version, days, mended } = failed;
  const like = LIKE[look.found];
  const happened: Happening[] = like ? [{ what: like, where: look.where, originalToo: null }] : [];
  const served = days === null ? '' : ` after ${days} ${days === 1 ? 'day' : 'days'}`;
  return (
    <Panel aria-label="What failed">
      <Stack $gap={10}>
        <h2>
          {capital(versionWords(version.number, version.partId, document))}: {LOOKED_WORDS[look.found]}
          {served}
        </h2>
        {look.where || look.cause ? (
          <p>{[look.where, look.cause ? `cause: ${look.cause}` : ''].filter(Boolean).join('; ')}</p>
        ) : null}
        {look.place ? <Where place={look.place} version={version} /> : null}
        <p className="soft">
          It had been given {formatPercent(version.pAllRight)} to sit right, which says nothing of how long it
          lasts.
          {version.accepted.length > 0
            ? ` Accepted then: ${version.accepted.map(a => `${a.message} (${a.reason})`).join(' ')}`
            : ' Nothing had been stopped or accepted when it was made.'}
        </p>
        <WhatItMeans happened={happened} />
        {look.found === 'came-off' ? (
          <Notice level="warn">
            What comes off in service wants a tighter fit, a catch, or another way to hold: the verdict at the
            try was about going on.
          </Notice>
        ) : null}
        {mended ? (
          <Notice level="note">A version was made since; this one is not sent back.</Notice>
        ) : (
          <Row $wrap $gap={8}>
            <Button $look="main" onPress={() => go('shape')}>
              Change it for version {resolved.nextNumber}
            </Button>
            <Button $look="quiet" onPress={() => go('fit')}>
              Change how it holds
            </Button>
          </Row>
        )}
      </Stack>
    </Panel>
  );
}

/** The marked place, on the version that failed. */
function Where({ place, version }: { place: Place; version: Version }) {
  const [open, setOpen] = useState(false);
  return (
    <>
      <Row>
        <Button $small onPress={() => setOpen(!open)}>
          {open ? 'Close the solid' : 'Show the place on the solid'}
        </Button>
      </Row>
      {open ? <VersionSolid version={version} marked={[place]} /> : null}
    </>
  );
}

/** “in 3 days”, “2 days ago”. */
export function dayWords(at: string, now: Date): string {
  const days = differenceInCalendarDays(new Date(at), now);
  if (days === 0) return 'today';
  const count = Math.abs(days);
  const words = `${count} ${count === 1 ? 'day' : 'days'}`;
  return days > 0 ? `in ${words}` : `${words} ago`;
}
