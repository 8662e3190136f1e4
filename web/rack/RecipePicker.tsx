import { ToggleButton, ToggleButtonGroup } from 'react-aria-components';
import styled from 'styled-components';
import { type Thumbnail, thumbnailOf } from '../../core/shape/drawing/thumbnail';
import { RECIPES } from '../../core/shape/recipes';
import type { Recipe } from '../../core/shape/recipes/recipe';
import { PartThumbnail } from '../ui/PartThumbnail';
import { FONTS } from '../ui/theme';

const FAMILIES: readonly { id: Recipe['family']; title: string }[] = [
  { id: 'replacement', title: 'Replace what broke' },
  { id: 'adapter', title: 'Join what was never meant to meet' },
  { id: 'mount', title: 'Hold it somewhere' },
];

/** Rendered once, when the first dialog opens: typing in the dialog must not render them again. */
let drawn: ReadonlyMap<string, Thumbnail> | undefined;
const thumbnails = () => {
  drawn ??= new Map(RECIPES.map(r => [r.id, thumbnailOf(r.drawing(r.demo.parameters))]));
  return drawn;
};

interface Props {
  value: string;
  onChange(id: string): void;
  /** Jobs that sat right: recipes of the maker's own, for another object. */
  own?: readonly { id: string; title: string; thumbnail: Thumbnail }[];
}

/** The name of a job among recipes. */
export const againId = (jobId: string): string => `job:${jobId}`;
export const jobOfAgain = (id: string): string | null => (id.startsWith('job:') ? id.slice(4) : null);

/** The recipes as pictures of their demo objects, grouped by purpose; the maker's own come first. */
export function RecipePicker({ value, onChange, own = [] }: Props) {
  return (
    <Group
      aria-label="Recipe"
      selectionMode="single"
      disallowEmptySelection
      selectedKeys={[value]}
      onSelectionChange={keys => onChange(String([...keys][0]))}
    >
      {own.length > 0 ? (
        <section>
          <h3>Make it again, for another object</h3>
          <div>
            {own.map(job => (
              <ToggleButton key={job.id} id={againId(job.id)} aria-label={`Again: ${job.title}`}>
                <PartThumbnail of={job.thumbnail} />
                <span className="own">{job.title}</span>
              </ToggleButton>
            ))}
          </div>
        </section>
      ) : null}
      {FAMILIES.map(family => (
        <section key={family.id}>
          <h3>{family.title}</h3>
          <div>
            {RECIPES.filter(r => r.family === family.id).map(r => (
              <ToggleButton key={r.id} id={r.id} aria-label={r.title}>
                <PartThumbnail of={thumbnails().get(r.id)!} />
                <span>{r.title}</span>
              </ToggleButton>
            ))}
          </div>
        </section>
      ))}
    </Group>
  );
}

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
  .own { display: -webkit-box; -webkit-line-clamp: 2; -webkit-box-orient: vertical; overflow: hidden; overflow-wrap: anywhere; }
  @media (max-width: 620px) { section > div { grid-template-columns: repeat(2, minmax(0, 1fr)); } }
`;
