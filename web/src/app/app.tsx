import { MutationCache, QueryCache, QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { RouterProvider } from 'react-router'
import { isOutOfDate, isSignedOut, NoAnswerError } from '@/api/problem'
import { endSession } from '@/api/session'
import { router } from './router'

/** Whatever was asked: if the session has ended, the sign-in form comes, and leads back to the same place. */
const onError = (error: unknown) => {
  if (isSignedOut(error)) endSession(queries)
  if (isOutOfDate(error)) void queries.invalidateQueries({ queryKey: ['session'] }) // brings a new token, or the sign-in form
}

const queries: QueryClient = new QueryClient({
  queryCache: new QueryCache({ onError }),
  mutationCache: new MutationCache({ onError }),
  defaultOptions: {
    queries: {
      retry: (count, error) => error instanceof NoAnswerError && count < 3,
      networkMode: 'always', // the server is on this machine or in this house: "offline" of the browser says nothing about it
      staleTime: 5_000,
    },
    mutations: { networkMode: 'always' },
  },
})

export function App() {
  return (
    <QueryClientProvider client={queries}>
      <RouterProvider router={router} />
    </QueryClientProvider>
  )
}
