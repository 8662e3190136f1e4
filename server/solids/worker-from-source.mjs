// A worker thread does not inherit the TypeScript loader: register it here, then load the real worker.
import { register } from 'tsx/esm/api';

register();
const { default: run } = await import('./worker.ts');
export default run;
