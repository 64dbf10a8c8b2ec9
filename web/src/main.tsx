import '@fontsource-variable/source-sans-3/wght.css';
import './app/global.css';
import { QueryClientProvider } from '@tanstack/react-query';
import { App as AntApp, ConfigProvider } from 'antd';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { RouterProvider } from 'react-router';
import { api, queries, Refusal, saving, unwrap } from './api/client';
import { askAhead } from './api/hooks';
import { listen } from './api/news';
import { watchPresses } from './api/press';
import { keepHand } from './app/hand';
import { fetchAhead, router } from './app/router';
import { theme } from './app/theme';
import { COMMAND, refusals } from './fields/refusals';

/** So long the server may keep a question for news, seconds. */
const WAIT = 25;

/** Styles that are made in the page are let in by the word the server gave this page. */
const csp = { nonce: document.querySelector<HTMLMetaElement>('meta[name="csp-nonce"]')?.content ?? '' };

// the element library forgets the word where it stops the page behind a drawer from scrolling
const create = document.createElement.bind(document);
document.createElement = (name: string, options?: ElementCreationOptions) => {
  const made = create(name, options);
  if (name === 'style') made.nonce = csp.nonce;
  return made;
};

keepHand();
watchPresses(document);
saving.subscribe(() => {
  if (saving.get().state === 'saved') refusals.drop(COMMAND);
});
// a command that was refused, and that nobody else tells of
window.addEventListener('unhandledrejection', (event) => {
  if (!(event.reason instanceof Refusal)) return;
  event.preventDefault();
  refusals.add({
    id: COMMAND,
    label: 'The last command',
    message: event.reason.message,
    go: () => refusals.drop(COMMAND),
  });
});
askAhead(queries, location.pathname);
void listen((since) => unwrap(api.GET('/api/news', { params: { query: { since, wait: since ? WAIT : 0 } } })));
createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <QueryClientProvider client={queries}>
      <ConfigProvider theme={theme} csp={csp} button={{ autoInsertSpace: false }}>
        <AntApp>
          <RouterProvider router={router} />
        </AntApp>
      </ConfigProvider>
    </QueryClientProvider>
  </StrictMode>,
);
// one that did not come is asked for again when it is gone to
void fetchAhead().catch(() => undefined);
