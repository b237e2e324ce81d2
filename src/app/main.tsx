import '@fontsource-variable/bricolage-grotesque';
import '@fontsource-variable/ibm-plex-sans';
import '@fontsource-variable/jetbrains-mono';
import { createRoot } from 'react-dom/client';
import { App } from './App';

void import('./state/device').then((m) => m.readDevice());
const root = document.getElementById('root');
if (!root) throw new Error('the page has no element to draw into');
createRoot(root).render(<App />);
