export interface Finding {
  code: string;
  /** stop: do not print. warn: will cost a print. note: worth knowing. */
  level: 'stop' | 'warn' | 'note';
  /** Cause, and what to do, as sentences. */
  message: string;
  parameter?: string;
  remedy?: { label: string; parameter: string; text: string };
  /** The addition it is about. */
  addition?: string;
  /** The load it is about. */
  load?: string;
  /** The neighbour it is about. */
  neighbour?: string;
}

/** A stop that a maker overruled, with the reason why. */
export interface Accepted {
  code: string;
  message: string;
  reason: string;
}

/** What was accepted stays so while its cause does. */
export const isAccepted = (finding: Finding, accepted: readonly Accepted[]): boolean =>
  accepted.some(a => a.code === finding.code && a.message === finding.message);
