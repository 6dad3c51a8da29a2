// First of all: every other part says its words as it is read.
import './parts/language.js';
import './app/tokens.css';
import { QueryClientProvider } from '@tanstack/react-query';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { RouterProvider } from 'react-router';
import { queryClient } from './api/queries.js';
import { router } from './app/router.js';
import { keepSecondPressFromNextPlace } from './app/secondPress.js';
import { keepTheme } from './parts/theme.js';

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
