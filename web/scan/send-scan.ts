import { ScanAnswer } from '../../contract/jobs';
import { call } from '../api/client';

/** @throws with the server's words */
export function sendScan(jobId: string, file: File): Promise<ScanAnswer> {
  const label = encodeURIComponent(file.name.replace(/\.\w{1,5}$/, '').slice(0, 100));
  return call('POST', `/jobs/${jobId}/scans?label=${label}`, ScanAnswer, file);
}
