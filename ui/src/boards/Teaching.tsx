import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { Outlet } from 'react-router'
import '../words/teaching'

const queries = new QueryClient({ defaultOptions: { queries: { retry: 1, staleTime: 5_000 } } })

/** What the teachers' screens share. */
export function Teaching() {
  return (
    <QueryClientProvider client={queries}>
      <Outlet />
    </QueryClientProvider>
  )
}
