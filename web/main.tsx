import '@fontsource-variable/hanken-grotesk';
import '@fontsource/spline-sans-mono/400.css';
import '@fontsource/spline-sans-mono/600.css';
import '@fontsource/zilla-slab/500.css';
import '@fontsource/zilla-slab/600.css';
import './styles.css';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { createBrowserRouter, RouterProvider } from 'react-router';
import { Frame } from './app/Frame.tsx';
import { Opening } from './app/Opening.tsx';
import { RouteTrouble } from './app/RouteTrouble.tsx';
import { Desk } from './desk/Desk.tsx';

const client = new QueryClient({ defaultOptions: { queries: { retry: 1, refetchOnWindowFocus: false } } });

const router = createBrowserRouter([
  {
    element: <Frame />,
    errorElement: <RouteTrouble />,
    children: [
      { index: true, element: <Opening /> },
      { path: '/desk', element: <Desk /> },
      {
        path: '/lists',
        lazy: async () => ({ Component: (await import('./lists/Lists.tsx')).Lists }),
      },
      {
        path: '/lists/:list/calls',
        lazy: async () => ({ Component: (await import('./lists/calls/CallSheet.tsx')).CallSheet }),
      },
      {
        path: '/outreach',
        lazy: async () => ({ Component: (await import('./outreach/Outreach.tsx')).Outreach }),
      },
      {
        path: '/gather',
        lazy: async () => ({ Component: (await import('./gather/Gather.tsx')).Gather }),
      },
      {
        path: '/gather/:id',
        lazy: async () => ({ Component: (await import('./gather/Teach.tsx')).Teach }),
      },
      {
        path: '/runs',
        lazy: async () => ({ Component: (await import('./runs/Runs.tsx')).Runs }),
      },
      {
        path: '/watched/:subject/:key',
        lazy: async () => ({ Component: (await import('./runs/Watched.tsx')).Watched }),
      },
      {
        path: '/exports',
        lazy: async () => ({ Component: (await import('./exports/Exports.tsx')).Exports }),
      },
      {
        path: '/sources',
        lazy: async () => ({ Component: (await import('./sources/Sources.tsx')).Sources }),
      },
      {
        path: '/titles',
        lazy: async () => ({ Component: (await import('./people/Titles.tsx')).Titles }),
      },
      {
        path: '/settings',
        lazy: async () => ({ Component: (await import('./settings/Settings.tsx')).Settings }),
      },
      { path: '*', element: <RouteTrouble missing /> },
    ],
  },
]);

createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <QueryClientProvider client={client}>
      <RouterProvider router={router} />
    </QueryClientProvider>
  </StrictMode>,
);
