import { MousePointerClick } from 'lucide-react';
import styled from 'styled-components';
import { placeInWords, readPlace } from '../../../../core/shape/additions/place';
import type { ParameterSpec } from '../../../../core/shape/recipes/parameters';
import { useBench } from '../../../job/bench-context';
import { CommittedField } from '../../../ui/CommittedField';
import { Hinted, IconButton } from '../../../ui/controls';
import { Problem } from '../outline/table';
import { usePicking } from './picking';

/** The place of something: in words, or by pressing on the face. */
export function PlaceField({ spec }: { spec: Extract<ParameterSpec, { kind: 'place' }> }) {
  const { resolved, edit } = useBench('resolved', 'edit');
  const { part, expressions, parameters, problems } = resolved;
  const { asking, naming, ask } = usePicking();
  const set = (text: string) =>
    void edit({ kind: 'parameter', partId: part.id, name: spec.name, expression: { text, unit: 'mm' } });
  const problem = problems[spec.name];
  const waiting = asking === spec.name;
  return (
    <Box>
      <CommittedField
        label={spec.label}
        value={expressions[spec.name]?.text ?? spec.default}
        hint={
          waiting
            ? 'Press on a face of the part.'
            : naming === spec.name
              ? 'Finding out what that face is made of…'
              : problem
                ? undefined
                : `On ${placeInWords(readPlace(String(parameters[spec.name])))}.`
        }
        onCommit={set}
      />
      {problem ? <Problem>{problem}</Problem> : null}
      <Hinted hint={waiting ? 'Leave it as it is' : 'Press on a face instead'}>
        <IconButton
          aria-label={`${spec.label}: press on a face`}
          aria-pressed={waiting}
          onPress={() => (waiting ? ask(null) : ask(spec.name, set))}
        >
          <MousePointerClick size={17} />
        </IconButton>
      </Hinted>
    </Box>
  );
}

const Box = styled.div`
  position: relative; min-width: 0;
  > button { position: absolute; right: 0; top: -6px; }
  > button[aria-pressed='true'] { color: var(--blue); background: var(--tint); }
`;
