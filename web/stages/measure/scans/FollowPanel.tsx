import type { Scan } from '../../../../core/job/scans';
import { writeHoles } from '../../../../core/shape/outline-text';
import type { Point3 } from '../../../../core/shape/vector';
import { preparedAs } from '../../../../core/work/scan-trust';
import { useBench } from '../../../job/bench-context';
import { useFollow } from '../../../scan/use-follow';
import type { OpenScan } from '../../../scan/use-scan';
import { Button } from '../../../ui/controls';
import { Notice, Panel, Row } from '../../../ui/layout';
import type { ShownFinding } from '../../../workers/scan-protocol';

/** A cylinder this thin is a peg or a marker, mm; or a post on its own. Common practice, no source. */
const [PEG, POST] = [14, 10];

interface Props {
  scan: Scan;
  findings: readonly ShownFinding[];
  ask: OpenScan['ask'];
  /** Places that were pressed for posts; null while that is off. */
  places: readonly Point3[] | null;
  onPlaces(places: readonly Point3[] | null): void;
}

/** Only where the part follows an object. */
export function FollowPanel({ scan, findings, ask, places, onPlaces }: Props) {
  const { document, resolved, edit, say, go } = useBench('document', 'resolved', 'edit', 'say', 'go');
  const { busy, problem, follow, spec } = useFollow();
  if (!spec) return null;
  const { parameters, part, recipe } = resolved;
  const text = part.parameters[spec.name]?.text;
  const own = document.models.find(m => m.id === text && m.from?.scan === scan.id);
  const isNow = own?.from?.prepared === preparedAs(scan);
  const hasPosts = recipe.parameters.some(s => s.kind === 'holes' && s.name === 'posts');
  const pegs = findings.filter(
    f => f.kind === 'cylinder' && f.sizes[0]?.kind === 'outside' && f.sizes[0].value < PEG,
  );
  const take = async () => {
    if (!(await follow(scan, ask))) return;
    say('The part follows this scan now. Say on Shape which way it lies, and see that it comes out.');
    go('shape');
  };
  const put = async (at: readonly Point3[], across: (i: number) => number) => {
    const lay = { lies: String(parameters.lies), turn: Number(parameters.turn) };
    const reply = await ask(api => api.under(at, { ...lay, factor: scan.trust?.factor ?? 1 }));
    if (!reply?.ok) return;
    const posts = reply.places.map(([x, y], i) => ({
      x: Number((x - Number(parameters.right)).toFixed(2)),
      y: Number((y - Number(parameters.back)).toFixed(2)),
      diameter: Number(across(i).toFixed(1)),
    }));
    const set = (name: string, value: string, unit: 'mm' | 'none') =>
      edit({ kind: 'parameter', partId: part.id, name, expression: { text: value, unit } });
    if (!(await set('form', 'posts', 'none')) || !(await set('posts', writeHoles(posts), 'mm'))) return;
    onPlaces(null);
    say(`${posts.length} posts stand under those places now.`);
    go('shape');
  };
  return (
    <Panel>
      <h2>{recipe.title}</h2>
      <p className="soft">
        {isNow
          ? 'The part follows this scan as it is prepared now.'
          : own
            ? 'The scan was prepared differently after the part took it.'
            : 'The part follows a surface. Put the scan upright and cut away what is not part of the object first: the table, a hand.'}
      </p>
      {problem ? <Notice level="stop">{problem}</Notice> : null}
      {isNow ? null : (
        <Button $look="main" isDisabled={busy} onPress={() => void take()}>
          {busy ? 'Reading the scan…' : own ? 'Take it again' : 'Let the part follow this scan'}
        </Button>
      )}
      {hasPosts && isNow ? (
        <Row $gap={8} $wrap>
          {places === null ? (
            <Button $small onPress={() => onPlaces([])}>
              Choose places for posts
            </Button>
          ) : (
            <>
              <Button
                $small
                $look="main"
                isDisabled={places.length === 0}
                onPress={() => void put(places, () => POST)}
              >
                {places.length === 1 ? 'A post at this place' : `Posts at these ${places.length} places`}
              </Button>
              <Button $small $look="quiet" onPress={() => onPlaces(null)}>
                Cancel
              </Button>
            </>
          )}
          {pegs.length > 0 ? (
            <Button
              $small
              onPress={() =>
                void put(
                  pegs.map(f => f.centre),
                  i => pegs[i]!.sizes[0]!.value + 4,
                )
              }
            >
              Posts under the {pegs.length === 1 ? 'peg' : `${pegs.length} pegs`} found
            </Button>
          ) : null}
        </Row>
      ) : null}
    </Panel>
  );
}
