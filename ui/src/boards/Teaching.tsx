import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { useEffect } from 'react'
import { Navigate, Outlet, useLocation } from 'react-router'
import { useMe } from '../wire/hooks/useMe'
import '../words/teaching'
import { lastLanguage, rememberLanguage, speak, writeAs } from '../words/words'

const queries = new QueryClient({ defaultOptions: { queries: { retry: 1, staleTime: 5_000 } } })

/** What the teachers' screens share. */
export function Teaching() {
  return (
    <QueryClientProvider client={queries}>
      <AsSet />
    </QueryClientProvider>
  )
}

/** The page as its teacher has set it; whoever has to set up a second factor first comes there. */
function AsSet() {
  const { pathname } = useLocation()
  const teacher = useMe().data?.teacher
  const settings = teacher?.settings
  useEffect(() => {
    const language = settings?.language ?? lastLanguage()
    if (language) void speak(language)
    if (!settings) return
    rememberLanguage(settings.language)
    writeAs(settings.region)
    document.documentElement.toggleAttribute('data-calm', settings.calm)
  }, [settings])
  if (teacher?.held && pathname !== '/account') return <Navigate to="/account" replace />
  return <Outlet />
}
