import { createRoot } from 'react-dom/client';
import { ask } from '../shared/messages';
import { say } from '../words';
import { PicturePage } from './PicturePage';

/** Shows the picture that the address names; one is given once. */
export function begin(): void {
  document.title = say('picture');
  const root = createRoot(document.querySelector('#root')!);
  const gone = () => root.render(<p className="p-8">{say('pictureGone')}</p>);
  ask({ ask: 'pictured', id: location.hash.slice(1) }).then((pictured) => {
    if (pictured) root.render(<PicturePage pictured={pictured} />);
    else gone();
  }, gone);
}
