import { useBench } from '../../job/bench-context';
import { Button } from '../../ui/controls';
import { Empty } from '../../ui/layout';

/** A mate without a reading: where its number will come from. */
export function NotRead({ dimensionId, children }: { dimensionId: string; children: string }) {
  const { document, go } = useBench('document', 'go');
  const dimension = document.dimensions.find(d => d.id === dimensionId);
  return (
    <Empty
      title={`${dimension?.label ?? 'This'} is not read yet`}
      action={
        <Button $look="main" onPress={() => go('measure', dimension?.id)}>
          Measure it
        </Button>
      }
    >
      {children}
    </Empty>
  );
}
