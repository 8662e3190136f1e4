import styled from 'styled-components';
import { askedChoices } from '../../../core/work/unsaid';
import { decidingChoices } from '../../../core/work/uses';
import { useBench } from '../../job/bench-context';
import { Panel } from '../../ui/layout';
import { ParameterField } from '../shape/ParameterField';

/** Choices that decide what is measured, and those that depend on the object: asked where the object is looked at. */
export function Deciding() {
  const { resolved } = useBench('resolved');
  const { recipe, parameters } = resolved;
  const asked = askedChoices(recipe, parameters);
  const deciding = decidingChoices(recipe, parameters).filter(c => !asked.some(a => a.name === c.name));
  return (
    <>
      {asked.length > 0 ? (
        <Panel aria-label="Only the object can say">
          <h2>Only the object can say</h2>
          <Fields>
            {asked.map(spec => (
              <ParameterField key={spec.name} spec={spec} />
            ))}
          </Fields>
        </Panel>
      ) : null}
      {deciding.length > 0 ? (
        <Panel aria-label="What the part has">
          <h2>What the part has decides what is measured</h2>
          <Fields>
            {deciding.map(spec => (
              <ParameterField key={spec.name} spec={spec} />
            ))}
          </Fields>
        </Panel>
      ) : null}
    </>
  );
}

const Fields = styled.div`display: grid; grid-template-columns: repeat(auto-fill, minmax(220px, 1fr)); gap: 12px; margin-top: 8px;`;
