import { Moon, Sun } from 'lucide-react';
import { useState } from 'react';
import { Hinted, IconButton } from './controls';
import { applyTheme, isNight } from './theme';

/** Day or night colours, stored on this machine; until chosen they follow the system. */
export function ThemeKey() {
  const [night, setNight] = useState(isNight);
  const turn = () => {
    applyTheme(night ? 'day' : 'night');
    setNight(!night);
  };
  return (
    <Hinted hint={night ? 'Day colours' : 'Night colours'}>
      <IconButton aria-label={night ? 'Day colours' : 'Night colours'} onPress={turn}>
        {night ? <Sun size={18} /> : <Moon size={18} />}
      </IconButton>
    </Hinted>
  );
}
