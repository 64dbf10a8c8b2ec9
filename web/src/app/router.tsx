import { createBrowserRouter, Navigate } from 'react-router';
import { Broken } from './Broken';
import { Shell } from './Shell';

const wait = <div className="waiting">Fetching …</div>;

export const router = createBrowserRouter([
  {
    element: <Shell />,
    errorElement: <Broken />,
    hydrateFallbackElement: wait,
    children: [
      { index: true, lazy: async () => ({ Component: (await import('../stages/bench/Bench')).Bench }) },
      { path: 'cupboard', lazy: async () => ({ Component: (await import('../cupboard/Cupboard')).Cupboard }) },
      {
        path: 'cupboard/:clothId',
        lazy: async () => ({ Component: (await import('../cupboard/CupboardCloth')).CupboardCloth }),
      },
      { path: 'washday', lazy: async () => ({ Component: (await import('../washday/WashdayPage')).WashdayPage }) },
      {
        path: 'projects/:projectId',
        children: [
          { index: true, element: <Navigate to="plan" replace /> },
          { path: 'plan', lazy: async () => ({ Component: (await import('../stages/plan/Plan')).Plan }) },
          { path: 'cloth', lazy: async () => ({ Component: (await import('../stages/cloth/ClothStage')).ClothStage }) },
          { path: 'shrink', lazy: async () => ({ Component: (await import('../stages/shrink/Shrink')).Shrink }) },
          { path: 'buy', lazy: async () => ({ Component: (await import('../stages/buy/Buy')).Buy }) },
          { path: 'true', lazy: async () => ({ Component: (await import('../stages/true/TrueStage')).TrueStage }) },
          { path: 'lay', lazy: async () => ({ Component: (await import('../stages/lay/LayStage')).LayStage }) },
          { path: 'log', lazy: async () => ({ Component: (await import('../stages/log/LogStage')).LogStage }) },
        ],
      },
      { path: '*', element: <Broken missing /> },
    ],
  },
]);
