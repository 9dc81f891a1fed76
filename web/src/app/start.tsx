import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { App } from './App';

/** Shows the application; its words are there. */
export function start(root: HTMLElement): void {
  createRoot(root).render(
    <StrictMode>
      <App />
    </StrictMode>,
  );
}
