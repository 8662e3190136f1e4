import { ToggleButton, ToggleButtonGroup } from 'react-aria-components';
import styled from 'styled-components';
import type { DrawShape } from '../../core/shape/drawing/drawing';
import { RECIPES } from '../../core/shape/recipes';
import type { Recipe } from '../../core/shape/recipes/recipe';
import { FONTS } from '../ui/theme';

const FAMILIES: readonly { id: Recipe['family']; title: string }[] = [
  { id: 'replacement', title: 'Replace what broke' },
  { id: 'adapter', title: 'Join what was never meant to meet' },
  { id: 'mount', title: 'Hold it somewhere' },
];

/** The recipes as pictures of their demo objects, by what they are for. */
export function RecipePicker({ value, onChange }: { value: string; onChange(id: string): void }) {
  return (
    <Group
      aria-label="Recipe"
      selectionMode="single"
      disallowEmptySelection
      selectedKeys={[value]}
      onSelectionChange={keys => onChange(String([...keys][0]))}
    >
      {FAMILIES.map(family => (
        <section key={family.id}>
          <h3>{family.title}</h3>
          <div>
            {RECIPES.filter(r => r.family === family.id).map(r => (
              <ToggleButton key={r.id} id={r.id} aria-label={r.title}>
                <Picture recipe={r} />
                <span>{r.title}</span>
              </ToggleButton>
            ))}
          </div>
        </section>
      ))}
    </Group>
  );
}

function Picture({ recipe }: { recipe: Recipe }) {
  const shapes = recipe.drawing(recipe.demo.parameters).shapes.filter(s => s.ink !== 'centre');
  const xs = shapes.flatMap(s => s.points.map(p => p[0]));
  const ys = shapes.flatMap(s => s.points.map(p => -p[1]));
  const [x, y] = [Math.min(...xs), Math.min(...ys)];
  const [w, h] = [Math.max(...xs) - x, Math.max(...ys) - y];
  const line = Math.max(w, h * 1.6) / 90;
  return (
    <svg viewBox={`${x - 2 * line} ${y - 2 * line} ${w + 4 * line} ${h + 4 * line}`} aria-hidden>
      {shapes.map((s, i) => (
        <path key={i} d={pathOf(s)} className={s.ink} strokeWidth={s.ink === 'mate' ? 2.4 * line : line} />
      ))}
    </svg>
  );
}

const pathOf = ({ points, closed }: DrawShape) =>
  `M${points.map(([x, y]) => `${x.toFixed(2)} ${(-y).toFixed(2)}`).join('L')}${closed ? 'Z' : ''}`;

const Group = styled(ToggleButtonGroup)`
  display: flex; flex-direction: column; gap: 10px;
  h3 { font: 600 14px ${FONTS.label}; color: var(--soft); margin: 0 0 4px; }
  section > div { display: grid; grid-template-columns: repeat(4, minmax(0, 1fr)); gap: 6px; }
  button {
    display: flex; flex-direction: column; align-items: center; justify-content: space-between; gap: 5px; padding: 8px 5px 6px; min-width: 0;
    background: var(--raised); color: var(--ink); border: 2px solid transparent; box-shadow: inset 0 0 0 1px var(--rule); border-radius: 5px; cursor: pointer;
    font: 13.5px/1.15 ${FONTS.text};
  }
  button[data-selected] { border-color: var(--blue); box-shadow: none; font-weight: 600; background: var(--tint); }
  svg { width: 100%; height: 52px; }
  path { fill: none; stroke: var(--ink); stroke-linejoin: round; }
  .cut { fill: var(--clay); } .edge { fill: var(--sheet); } .mate { stroke: var(--blue); } .ghost { stroke: var(--soft); }
  @media (max-width: 620px) { section > div { grid-template-columns: repeat(2, minmax(0, 1fr)); } }
`;
