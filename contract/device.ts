import { z } from 'zod';

/** One number from an instrument that streams, real or simulated; the same path for both. */
export const DeviceReading = z.object({
  /** As the instrument sent it: "31.72", "31,72 mm", "1.249 in". */
  text: z.string().min(1).max(60),
  instrumentId: z.string().max(40).nullable().default(null),
});
export type DeviceReading = z.infer<typeof DeviceReading>;
