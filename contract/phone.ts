import { z } from 'zod';

/** A paired phone or tablet. */
export const Device = z.object({
  id: z.string(),
  name: z.string(),
  pairedAt: z.string(),
  /** Time of its last request; null where there was none since pairing. */
  usedAt: z.string().nullable(),
});

/** A network of this machine, and the address for a phone on it. */
export const Reach = z.object({ network: z.string(), address: z.string(), url: z.string() });

/** Whether phones are let in, where, and which. */
export const PhoneDoor = z.object({
  open: z.boolean(),
  /** Its address, while it is open. */
  port: z.number().nullable(),
  reach: z.array(Reach),
  devices: z.array(Device),
});

/** Shown once as a QR code; the phone sends it back once. */
export const PairingCode = z.object({
  code: z.string(),
  /** Seconds until it expires. */
  lasts: z.number(),
});

/** A code that is no longer accepted. */
export const Withdrawn = z.object({ withdrawn: z.literal(true) });

export const Pair = z.object({
  code: z.string().min(1, 'Type the code from the workshop page.').max(60),
  /** The browser's name for the kind of device. */
  kind: z.enum(['phone', 'tablet', 'computer']).default('phone'),
});

export const DeviceName = z.object({
  name: z.string().trim().min(1, 'Give it a name.').max(60, 'At most 60 characters.'),
});

/** The job that is on the bench. */
export const OnBench = z.object({ jobId: z.string().max(40).nullable() });

export type Device = z.infer<typeof Device>;
export type Reach = z.infer<typeof Reach>;
export type PhoneDoor = z.infer<typeof PhoneDoor>;
export type PairingCode = z.infer<typeof PairingCode>;
export type OnBench = z.infer<typeof OnBench>;
