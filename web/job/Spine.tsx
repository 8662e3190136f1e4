import { Keyboard } from 'lucide-react';
import { memo } from 'react';
import { NavLink } from 'react-router';
import styled from 'styled-components';
import { STAGES, type Stage } from '../../core/work/stages';
import { Hinted, IconButton } from '../ui/controls';
import { ThemeKey } from '../ui/ThemeKey';
import { FONTS } from '../ui/theme';
import { useBench } from './bench-context';
import { STAGE_LETTERS } from './use-job-keys';

export const STAGE_NAMES: Record<Stage, string> = {
  brief: 'Brief',
  measure: 'Measure',
  fit: 'Fit',
  shape: 'Shape',
  print: 'Print',
  try: 'Try',
  keep: 'Keep',
};
const SHORTEST = 8;
const LONGEST = 78;

/** The seven stages as a contour gauge: each pin reaches out as far as that part of the stage is settled. */
export const Spine = memo(function Spine({ stage, onKeys }: { stage: Stage; onKeys(): void }) {
  const { job, overview, document, resolved } = useBench('job', 'overview', 'document', 'resolved');
  const search = document.parts.length > 1 ? `?part=${resolved.part.id}` : '';
  return (
    <Comb aria-label="Stages">
      {STAGES.map(s => (
        <Item
          key={s}
          to={{ pathname: `/jobs/${job.id}/${s}`, search }}
          data-on={s === stage ? '' : undefined}
          title={`${STAGE_NAMES[s]}: g then ${STAGE_LETTERS[s]}`}
        >
          <b>{STAGE_NAMES[s]}</b>
          <span aria-hidden>
            {overview.pins[s].map((share, i) => (
              <i key={i} style={{ width: SHORTEST + (LONGEST - SHORTEST) * share - (i % 2 ? 3 : 0) }} />
            ))}
          </span>
        </Item>
      ))}
      <Foot>
        <ThemeKey />
        <Hinted hint="Keys (?)">
          <IconButton aria-label="Keys" onPress={onKeys}>
            <Keyboard size={18} />
          </IconButton>
        </Hinted>
      </Foot>
    </Comb>
  );
});

const Comb = styled.nav`
  border-right: 1px solid var(--rule); padding-top: 8px; display: flex; flex-direction: column; overflow: auto;
  @media (max-width: 900px) { flex-direction: row; border-right: 0; border-bottom: 1px solid var(--rule); padding: 0; height: 48px; }
`;
const Item = styled(NavLink)`
  display: block; flex: 0 1 90px; min-height: 62px; padding: 7px 0 0 12px; text-decoration: none; color: var(--soft); overflow: hidden;
  b { font: 600 14px ${FONTS.label}; display: block; margin-bottom: 5px; }
  i { display: block; height: 5px; margin: 0 0 3px -12px; background: var(--pin); border-radius: 0 3px 3px 0; transition: width 0.25s; }
  &[data-on] { background: var(--tint); color: var(--blue); }
  &[data-on] i { background: var(--blue); }
  &:focus-visible { outline-offset: -3px; }
  @media (max-width: 900px) {
    flex: 1 0 auto; min-height: 48px; padding: 13px 10px 0; text-align: center;
    span { display: none; }
  }
`;
const Foot = styled.div`
  margin-top: auto; display: flex; justify-content: center; padding: 6px 0;
  @media (max-width: 900px) { display: none; }
`;
