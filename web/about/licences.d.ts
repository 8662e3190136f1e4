declare module 'virtual:licences' {
  import type { Brought } from '../../scripts/licences';

  const all: Brought[];
  export default all;
}
