import { createRoot } from 'react-dom/client';
import { say } from '../words';
import { ClassPage } from './ClassPage';
import { TabLink } from './tabLink';

/** Shows the page for the tab that its address names. */
export function begin(): void {
  document.title = say('intoClass');
  const tab = new TabLink(Number(new URLSearchParams(location.hash.slice(1)).get('tab')));
  createRoot(document.querySelector('#root')!).render(<ClassPage tab={tab} />);
}
