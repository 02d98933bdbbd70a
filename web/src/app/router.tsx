import { createBrowserRouter, Navigate } from 'react-router'
import { Day } from '@/routes/day'
import { Bench } from '@/routes/bench'
import { JobScreen } from '@/routes/job'
import { NotHere, Broken } from './not-here'
import { Shell } from './shell'

export const router = createBrowserRouter([
  {
    path: '/',
    element: <Shell />,
    errorElement: <Broken />,
    children: [
      { index: true, element: <Navigate to="/day" replace /> },
      { path: 'day', element: <Day /> },
      { path: 'take-in', lazy: async () => ({ Component: (await import('@/routes/take-in')).TakeIn }) },
      { path: 'bench', element: <Bench /> },
      { path: 'bench/:tag', element: <JobScreen /> },
      { path: 'drives', lazy: async () => ({ Component: (await import('@/routes/drives')).Drives }) },
      { path: 'track-record', lazy: async () => ({ Component: (await import('@/routes/track-record')).TrackRecord }) },
      { path: '*', element: <NotHere /> },
    ],
  },
])
