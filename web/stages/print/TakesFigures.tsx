import styled from 'styled-components';
import { formatHours, formatHoursBetween, formatPlain } from '../../../core/quantity/format';

/** Time with its range, weight, and further remarks. */
export function TakesFigures({
  takes: { hours, from, to, grams },
  beside,
}: {
  takes: { hours: number; from: number; to: number; grams: number };
  beside: string;
}) {
  return (
    <Figures>
      <b className="number">{formatHours(hours)}</b>
      <span className="soft">{formatHoursBetween(from, to)}</span>
      <b className="number">{formatPlain(grams, 1)} g</b>
      <span className="soft">{beside}</span>
    </Figures>
  );
}

const Figures = styled.div`
  display: grid; grid-template-columns: auto 1fr; justify-content: start; gap: 1px 8px; align-items: baseline; font-size: 13.5px; b { font-size: 15px; }
`;
