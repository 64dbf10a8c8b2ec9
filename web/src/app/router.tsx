import { createBrowserRouter, Navigate } from 'react-router';
import { Broken } from './Broken';
import { going } from './going';
import { Shell } from './Shell';

/** The pages, each in a file of its own. */
const pages = {
  bench: async () => (await import('../stages/bench/Bench')).Bench,
  cupboard: async () => (await import('../cupboard/Cupboard')).Cupboard,
  cupboardCloth: async () => (await import('../cupboard/CupboardCloth')).CupboardCloth,
  washday: async () => (await import('../washday/WashdayPage')).WashdayPage,
  plan: async () => (await import('../stages/plan/Plan')).Plan,
  cloth: async () => (await import('../stages/cloth/ClothStage')).ClothStage,
  shrink: async () => (await import('../stages/shrink/Shrink')).Shrink,
  buy: async () => (await import('../stages/buy/Buy')).Buy,
  true: async () => (await import('../stages/true/TrueStage')).TrueStage,
  lay: async () => (await import('../stages/lay/LayStage')).LayStage,
  cut: async () => (await import('../stages/cut/CutStage')).CutStage,
  trueSize: async () => (await import('../stages/cut/TrueSize')).TrueSize,
  pair: async () => (await import('../devices/Pair')).Pair,
  log: async () => (await import('../stages/log/LogStage')).LogStage,
};

const lazy = (page: keyof typeof pages) => async () => ({ Component: await pages[page]() });

const idle = () => new Promise((resolve) => requestIdleCallback(resolve));

/** The page that is opened first has the line to itself for so long, ms. */
const FIRST = 2000;

/** Fetches the pages that were not shown yet, while nothing else is to be done: a link then has not to wait for one. */
export async function fetchAhead() {
  await new Promise((resolve) => setTimeout(resolve, FIRST));
  for (const fetchPage of Object.values(pages)) {
    await idle();
    await fetchPage();
  }
}

const wait = <div className="waiting">Fetching …</div>;

export const router = createBrowserRouter([
  // a device that is not paired may see nothing else
  { path: 'pair', errorElement: <Broken />, hydrateFallbackElement: wait, lazy: lazy('pair') },
  {
    element: <Shell />,
    errorElement: <Broken />,
    hydrateFallbackElement: wait,
    children: [
      { index: true, lazy: lazy('bench') },
      { path: 'cupboard', lazy: lazy('cupboard') },
      { path: 'cupboard/:clothId', lazy: lazy('cupboardCloth') },
      { path: 'washday', lazy: lazy('washday') },
      {
        path: 'projects/:projectId',
        children: [
          { index: true, element: <Navigate to="plan" replace /> },
          ...(['plan', 'cloth', 'shrink', 'buy', 'true', 'lay', 'cut', 'log'] as const).map((stage) => ({
            path: stage,
            lazy: lazy(stage),
          })),
          { path: 'true-size', lazy: lazy('trueSize') },
        ],
      },
      { path: '*', element: <Broken missing /> },
    ],
  },
]);

router.subscribe((state) => {
  going.to = state.navigation.location ?? state.location;
});
