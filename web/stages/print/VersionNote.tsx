import styled from 'styled-components';
import type { Version } from '../../../core/job/history';
import { remarkOf } from '../../../core/job/history/remark-of';
import { useBench } from '../../job/bench-context';
import { CommittedField } from '../../ui/CommittedField';

/** The maker's note on a version: “the flexible one”. It also appears in the logbook. */
export function VersionNote({ version }: { version: Version }) {
  const { job, session, say } = useBench('job', 'session', 'say');
  return (
    <Narrow>
      <CommittedField
        label="Note on this version"
        placeholder="the flexible one"
        value={remarkOf(job.history, version.id)}
        check={text => (text.trim().length > 600 ? 'At most 600 characters.' : undefined)}
        onCommit={text =>
          void session
            .append('remarks', () => ({ versionId: version.id, text: text.trim() }))
            .catch((error: Error) => say(error.message, 'stop'))
        }
      />
    </Narrow>
  );
}

const Narrow = styled.div`margin-top: 10px;`;
