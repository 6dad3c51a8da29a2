import { createBrowserRouter, Navigate } from 'react-router';
import { Blank, NotFound } from '../parts/Waiting.js';
import { Crashed } from './Failures.js';
import { Shell } from './Shell.js';

/** Each place is its own chunk, fetched when first opened. */
export const router = createBrowserRouter([
  {
    path: '/sign-in',
    hydrateFallbackElement: <Blank />,
    lazy: async () => ({ Component: (await import('../places/signin/SignIn.js')).SignIn }),
    errorElement: <Crashed />,
  },
  {
    path: '/join',
    hydrateFallbackElement: <Blank />,
    lazy: async () => ({ Component: (await import('../places/signin/Join.js')).Join }),
    errorElement: <Crashed />,
  },
  {
    path: '/home',
    hydrateFallbackElement: <Blank />,
    lazy: async () => ({ Component: (await import('../places/home/Home.js')).Home }),
    errorElement: <Crashed />,
  },
  {
    path: '/',
    element: <Shell />,
    hydrateFallbackElement: <Blank />,
    errorElement: <Crashed />,
    children: [
      { index: true, element: <Navigate to="/day" replace /> },
      { path: 'day', lazy: async () => ({ Component: (await import('../places/day/Day.js')).Day }) },
      {
        path: 'people',
        lazy: async () => ({ Component: (await import('../places/people/People.js')).People }),
      },
      {
        path: 'people/:personId',
        lazy: async () => ({ Component: (await import('../places/people/Person.js')).Person }),
      },
      {
        path: 'library',
        lazy: async () => ({ Component: (await import('../places/library/Library.js')).Library }),
      },
      {
        path: 'library/new',
        lazy: async () => ({ Component: (await import('../places/library/editor/Editor.js')).Editor }),
      },
      {
        path: 'library/equipment',
        lazy: async () => ({ Component: (await import('../places/library/Equipment.js')).Equipment }),
      },
      {
        path: 'library/protocols',
        lazy: async () => ({
          Component: (await import('../places/library/protocols/Protocols.js')).Protocols,
        }),
      },
      {
        path: 'library/protocols/:key',
        lazy: async () => ({
          Component: (await import('../places/library/protocols/Protocol.js')).Protocol,
        }),
      },
      {
        path: 'library/:key/edit',
        lazy: async () => ({ Component: (await import('../places/library/editor/Editor.js')).Editor }),
      },
      {
        path: 'library/:key/teach',
        lazy: async () => ({ Component: (await import('../places/library/Teach.js')).Teach }),
      },
      {
        path: 'library/:key',
        lazy: async () => ({ Component: (await import('../places/library/Exercise.js')).Exercise }),
      },
      {
        path: 'outcomes',
        lazy: async () => ({ Component: (await import('../places/outcomes/Outcomes.js')).Outcomes }),
      },
      {
        path: 'clinic/:part?',
        lazy: async () => ({ Component: (await import('../places/clinic/Clinic.js')).Clinic }),
      },
      {
        path: 'measures',
        lazy: async () => ({ Component: (await import('../places/measures/Measures.js')).Measures }),
      },
      {
        path: 'episodes/:episodeId/visit/:step?',
        lazy: async () => ({ Component: (await import('../places/visit/Visit.js')).Visit }),
      },
      {
        path: 'episodes/:episodeId/plan',
        lazy: async () => ({ Component: (await import('../places/plan/Plan.js')).Plan }),
      },
      {
        path: 'episodes/:episodeId/course',
        lazy: async () => ({ Component: (await import('../places/course/Course.js')).Course }),
      },
      {
        path: 'episodes/:episodeId/handout',
        lazy: async () => ({ Component: (await import('../places/handout/Handout.js')).Handout }),
      },
      {
        path: 'episodes/:episodeId/letter',
        lazy: async () => ({ Component: (await import('../places/letter/CourseLetter.js')).CourseLetter }),
      },
      {
        path: 'episodes/:episodeId/letters',
        lazy: async () => ({ Component: (await import('../places/letter/Letters.js')).Letters }),
      },
      {
        path: 'letters/:letterId',
        lazy: async () => ({ Component: (await import('../places/letter/LetterPage.js')).LetterPage }),
      },
      {
        path: 'episodes/:episodeId/lab',
        lazy: async () => ({ Component: (await import('../places/lab/Lab.js')).Lab }),
      },
      { path: '*', element: <NotFound /> },
    ],
  },
]);
