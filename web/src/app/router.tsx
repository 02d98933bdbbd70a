import { createBrowserRouter, Navigate } from 'react-router'
import { Day } from '@/routes/day'
import { Bench } from '@/routes/bench'
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
      { path: 'day/week', lazy: async () => ({ Component: (await import('@/routes/week')).Week }) },
      { path: 'day/closed', lazy: async () => ({ Component: (await import('@/routes/closed')).Closed }) },
      { path: 'take-in', lazy: async () => ({ Component: (await import('@/routes/take-in')).TakeIn }) },
      { path: 'bench', element: <Bench /> },
      { path: 'bench/tools/:tool?', lazy: async () => ({ Component: (await import('@/routes/tools')).Tools }) },
      { path: 'bench/:tag', lazy: async () => ({ Component: (await import('@/routes/job')).JobScreen }) },
      { path: 'account', lazy: async () => ({ Component: (await import('@/routes/account')).Account }) },
      { path: 'drives', lazy: async () => ({ Component: (await import('@/routes/drives')).Drives }) },
      { path: 'drives/which', lazy: async () => ({ Component: (await import('@/routes/drives')).Which }) },
      { path: 'drives/fits', lazy: async () => ({ Component: (await import('@/routes/drives')).FitsPage }) },
      { path: 'drives/:variant', lazy: async () => ({ Component: (await import('@/routes/drives')).DriveSheet }) },
      { path: 'drives/:variant/edit', lazy: async () => ({ Component: (await import('@/routes/drives')).EditSheet }) },
      { path: 'drives/:variant/console', lazy: async () => ({ Component: (await import('@/routes/drives')).EditConsole }) },
      { path: 'shelf', lazy: async () => ({ Component: (await import('@/routes/shelf')).Here }) },
      { path: 'shelf/wanted', lazy: async () => ({ Component: (await import('@/routes/shelf')).WantedPage }) },
      { path: 'shelf/coming', lazy: async () => ({ Component: (await import('@/routes/shelf')).Coming }) },
      { path: 'shelf/donors', lazy: async () => ({ Component: (await import('@/routes/shelf')).Donors }) },
      { path: 'shelf/donors/:tag', lazy: async () => ({ Component: (await import('@/routes/shelf')).DonorPage }) },
      { path: 'shelf/away', lazy: async () => ({ Component: (await import('@/routes/shelf')).Away }) },
      { path: 'shelf/count', lazy: async () => ({ Component: (await import('@/routes/shelf')).CountPage }) },
      { path: 'shelf/parts/:tag', lazy: async () => ({ Component: (await import('@/routes/shelf')).PartPage }) },
      { path: 'shop', lazy: async () => ({ Component: (await import('@/routes/shop')).Figures }) },
      { path: 'shop/people', lazy: async () => ({ Component: (await import('@/routes/shop')).People }) },
      { path: 'shop/has', lazy: async () => ({ Component: (await import('@/routes/shop')).Has }) },
      { path: 'shop/archive', lazy: async () => ({ Component: (await import('@/routes/shop')).OutAndIn }) },
      { path: 'track-record', lazy: async () => ({ Component: (await import('@/routes/track-record')).TrackRecord }) },
      { path: 'track-record/months', lazy: async () => ({ Component: (await import('@/routes/track-record')).Months }) },
      { path: 'track-record/learning', lazy: async () => ({ Component: (await import('@/routes/track-record')).Learning }) },
      { path: 'track-record/claims', lazy: async () => ({ Component: (await import('@/routes/track-record')).Claims }) },
      { path: 'practice', lazy: async () => ({ Component: (await import('@/routes/practice')).Lessons }) },
      { path: 'practice/:id', lazy: async () => ({ Component: (await import('@/routes/practice')).PracticeRun }) },
      { path: '*', element: <NotHere /> },
    ],
  },
])
