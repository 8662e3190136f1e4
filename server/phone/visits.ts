import type { Response } from 'express';

/** Answers in progress for each device: they end when it is removed. */
export class Visits {
  private readonly answers = new Map<string, Set<Response>>();

  begin(deviceId: string, res: Response): void {
    const open = this.answers.get(deviceId) ?? new Set();
    this.answers.set(deviceId, open.add(res));
    res.on('close', () => {
      open.delete(res);
      if (open.size === 0) this.answers.delete(deviceId);
    });
  }

  end(deviceId: string): void {
    for (const res of this.answers.get(deviceId) ?? []) res.destroy();
  }
}
