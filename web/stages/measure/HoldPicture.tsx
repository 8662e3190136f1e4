import styled from 'styled-components';
import type { GuideStep } from '../../../core/shape/recipes/recipe';

const NAMES: Record<GuideStep['hold'], string> = {
  'outside-jaws': 'Outside jaws closed on the object',
  'jaw-tips': 'Tips of the outside jaws in a groove',
  'inside-jaws': 'Inside jaws opened in a bore',
  'depth-rod': 'Depth rod let down from the edge',
  step: 'Beam across the edge, measuring a step',
};

/** How to hold the instrument, drawn plainly. */
export function HoldPicture({ hold }: { hold: GuideStep['hold'] }) {
  return (
    <Picture viewBox="0 0 112 84" role="img" aria-label={NAMES[hold]}>
      {hold === 'outside-jaws' ? (
        <>
          <circle cx="56" cy="56" r="19" className="object" />
          <path className="tool" d="M16 10h80v11h-15v52l-6-8v-44h-38v44l-6 8V21H16z" />
        </>
      ) : null}
      {hold === 'jaw-tips' ? (
        <>
          <path className="object" d="M34 34h44v12h-7v12h7v20H34V58h7V46h-7z" />
          <path className="tool" d="M12 8h88v10H86v38l-15-3v-4h10V18H31v31h10v4l-15 3V18H12z" />
        </>
      ) : null}
      {hold === 'inside-jaws' ? (
        <>
          <path className="object" d="M14 34h18v44H14zM80 34h18v44H80z" />
          <path className="tool" d="M20 10h72v11H78l2 34h-5l-6-34H43l-6 34h-5l2-34H20z" />
        </>
      ) : null}
      {hold === 'depth-rod' ? (
        <>
          <path className="object" d="M10 34h34v34h24V34h34v46H10z" />
          <path className="tool" d="M30 8h40v26H30zM54 34h5v34h-5z" />
        </>
      ) : null}
      {hold === 'step' ? (
        <>
          <path className="object" d="M10 66h26V32h40v34h26v14H10z" />
          <path className="tool" d="M30 14h62v18H30zM84 32h5v34h-5z" />
        </>
      ) : null}
    </Picture>
  );
}

const Picture = styled.svg`
  width: 112px; height: 84px; flex: none;
  .object { fill: var(--clay); stroke: var(--ink); stroke-width: 1.3; }
  .tool { fill: var(--soft); fill-rule: evenodd; }
`;
