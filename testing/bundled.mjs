// Server tests run the sources, with kernel threads and child processes from the bundle: it starts in half the time.
import { ensureServerBuilt } from '../scripts/setup.mjs';

export const setup = () => ensureServerBuilt();
