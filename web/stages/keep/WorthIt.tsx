import { useQuery } from '@tanstack/react-query';
import styled from 'styled-components';
import { HoursAnswer } from '../../../contract/jobs';
import { counting } from '../../../core/job/history';
import { capital, formatHours, formatPlain } from '../../../core/quantity/format';
import { energyOf } from '../../../core/work/months';
import { STAGES } from '../../../core/work/stages';
import { get } from '../../api/client';
import { useBench } from '../../job/bench-context';
import { CommittedField } from '../../ui/CommittedField';
import { Panel } from '../../ui/layout';
import { numberProblem, valueFor } from '../number-field';

/** Hours, plastic and failed prints against the price and the days of a bought one. */
export function WorthIt() {
  const { job, document, overview, workshop, resolved, edit } = useBench(
    'job',
    'document',
    'overview',
    'workshop',
    'resolved',
    'edit',
  );
  const { brief } = document;
  const { data } = useQuery({
    queryKey: ['hours', job.id, job.revision, job.updatedAt],
    queryFn: () => get(`/jobs/${job.id}/hours`, HoursAnswer),
  });
  const stages = data ? STAGES.filter(s => (data.minutes[s] ?? 0) >= 0.5) : [];
  const derived = stages.reduce((sum, s) => sum + (data?.minutes[s] ?? 0), 0) / 60;
  const own = brief.ownHours ?? derived;
  const lost = counting(resolved.history).prints.filter(p => p.failed !== null);
  const sum = (of: 'hours' | 'grams' | 'cost') => lost.reduce((all, p) => all + (p[of] ?? 0), 0);
  const wanted = brief.quantity ?? 1;
  const money = (x: number) => `${x.toFixed(2)} ${workshop.currency}`;
  const longest = Math.max(1, ...stages.map(s => data?.minutes[s] ?? 0));
  return (
    <Panel aria-label="Worth it?">
      <h2>Worth it?</h2>
      <Two>
        <div>
          <h3>Made</h3>
          <p>
            {money(overview.cost)} of plastic, {formatHours(own)} of yours, {formatHours(overview.hours)} of
            the printer’s, about {formatPlain(energyOf(overview.hours), 1)} kWh.
          </p>
          {lost.length > 0 ? (
            <p className="soft">
              Of that {lost.length === 1 ? 'one failed print' : `${lost.length} failed prints`}:{' '}
              {money(sum('cost'))}, {formatHours(sum('hours'))}.
            </p>
          ) : null}
        </div>
        <div>
          <h3>Bought</h3>
          {brief.priceToBuy === null ? (
            <p className="soft">No price on Brief: it cannot be bought, or nobody looked.</p>
          ) : (
            <p>
              {wanted > 1 ? `${wanted} for ` : ''}
              {money(wanted * brief.priceToBuy)}
              {brief.daysToBuy == null
                ? ''
                : `, ${formatPlain(brief.daysToBuy, 1)} ${brief.daysToBuy === 1 ? 'day' : 'days'} to wait`}
              .{' '}
              {brief.priceToBuy * wanted > overview.cost && own > 0
                ? `Making it saves ${money(wanted * brief.priceToBuy - overview.cost)}: ${money((wanted * brief.priceToBuy - overview.cost) / own)} for each of your hours.`
                : ''}
            </p>
          )}
        </div>
      </Two>
      {stages.length > 0 ? (
        <Bars aria-label="Your time by stage">
          {stages.map(stage => (
            <li key={stage}>
              <span>{capital(stage)}</span>
              <i style={{ width: `${(100 * (data?.minutes[stage] ?? 0)) / longest}%` }} />
              <b className="number">{formatHours((data?.minutes[stage] ?? 0) / 60)}</b>
            </li>
          ))}
        </Bars>
      ) : null}
      <Own>
        <CommittedField
          label="Your hours, where you know better"
          placeholder={formatPlain(derived, 1)}
          value={String(brief.ownHours ?? '')}
          check={text => (text.trim() === '' ? undefined : numberProblem(text, 0, 10_000))}
          onCommit={text =>
            void edit({
              kind: 'brief',
              brief: { ownHours: text.trim() === '' ? null : valueFor(text) },
            })
          }
          hint="Told from when things were done; pauses of more than twelve minutes do not count."
        />
      </Own>
    </Panel>
  );
}

const Two = styled.div`display: grid; grid-template-columns: 1fr 1fr; gap: 16px; margin-top: 6px; p { margin-top: 3px; font-size: 14.5px; } @media (max-width: 520px) { grid-template-columns: 1fr; }`;
const Bars = styled.ul`
  list-style: none; margin: 12px 0 0; padding: 0; font-size: 14px;
  li { display: grid; grid-template-columns: 74px minmax(0, 1fr) 74px; gap: 10px; align-items: center; padding: 3px 0; }
  i { display: block; height: 9px; background: var(--blue-2); border-radius: 2px; min-width: 2px; } b { text-align: right; }
`;
const Own = styled.div`margin-top: 12px; max-width: 300px;`;
