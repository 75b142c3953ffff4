import '@fontsource-variable/atkinson-hyperlegible-next';
import '@fontsource/barlow-semi-condensed/500.css';
import '@fontsource/barlow-semi-condensed/600.css';
import './styles/base.css';
import './kit/kit.css';
import './frame/frame.css';
import './line/line.css';
import './styles/utilities.css';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { App } from './App.js';

const root = document.getElementById('root');
if (root) {
  createRoot(root).render(
    <StrictMode>
      <App />
    </StrictMode>,
  );
}
