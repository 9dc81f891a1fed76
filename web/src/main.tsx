import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { App } from './app/App';
import './app/theme.css';
import { applyTypeSize } from './ui/typeSize';
import { watchWindowRoom } from './ui/windowRoom';

applyTypeSize();
watchWindowRoom();

createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <App />
  </StrictMode>,
);
