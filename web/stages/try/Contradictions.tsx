import { counting } from '../../../core/job/history';
import { VERDICT_WORDS } from '../../../core/learn/verdict';
import { contradictionsIn } from '../../../core/work/contradictions';
import { useBench } from '../../job/bench-context';
import { Button } from '../../ui/controls';
import { Notice, Row, Stack } from '../../ui/layout';

/**
 * Two verdicts that contradict each other lead to a question instead of being obeyed. @param onTry shows a print by its
 * number
 */
export function Contradictions({ onTry }: { onTry(printId: string): void }) {
  const { resolved, session, say } = useBench('resolved', 'session', 'say');
  const found = contradictionsIn(resolved);
  if (found.length === 0) return null;
  const idOf = (number: number) => counting(resolved.history).prints.find(p => p.number === number)?.id ?? '';
  const leaveOut = async (tryId: string, version: number) => {
    try {
      await session.append('void', () => ({
        kind: 'try',
        id: tryId,
        reason: 'does not go together with the verdict on another print',
      }));
      say(`What was said of version ${version} does not count any more. It stays in the logbook on Keep.`);
    } catch (error) {
      say((error as Error).message, 'stop');
    }
  };
  return (
    <Stack $gap={8} style={{ marginBottom: 14, maxWidth: 780 }}>
      {found.map(({ mateId, name, looser, tighter }) => (
        <Notice key={mateId} level="warn">
          <b>{name}</b>: {looser.model.toFixed(2)} was {VERDICT_WORDS[looser.verdict]} and{' '}
          {tighter.model.toFixed(2)} {VERDICT_WORDS[tighter.verdict]}, though it was drawn with less room. One
          of the two was judged, or printed, otherwise. Which would you try again?
          <Row $wrap $gap={8} style={{ marginTop: 8 }}>
            {[looser, tighter].map(of => (
              <Button key={of.tryId} $small onPress={() => onTry(idOf(of.print))}>
                Try version {of.version} again
              </Button>
            ))}
            {[looser, tighter].map(of => (
              <Button key={of.tryId} $small $look="quiet" onPress={() => void leaveOut(of.tryId, of.version)}>
                Leave version {of.version}’s verdict out
              </Button>
            ))}
          </Row>
        </Notice>
      ))}
    </Stack>
  );
}
