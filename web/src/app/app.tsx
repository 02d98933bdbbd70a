import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { RouterProvider } from 'react-router'
import { NoAnswerError } from '@/api/problem'
import { router } from './router'

const queries = new QueryClient({
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
