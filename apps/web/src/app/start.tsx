import { QueryClientProvider } from '@tanstack/react-query';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { RouterProvider } from 'react-router';
import { queryClient } from '../api/queries.js';
import { keepTheme } from '../parts/theme.js';
import { router } from './router.js';
import { keepSecondPressFromNextPlace } from './secondPress.js';

keepTheme();
keepSecondPressFromNextPlace();
const root = document.getElementById('root');
if (root !== null) {
  createRoot(root).render(
    <StrictMode>
      <QueryClientProvider client={queryClient}>
        <RouterProvider router={router} />
      </QueryClientProvider>
    </StrictMode>,
  );
}
