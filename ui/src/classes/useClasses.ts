import { useQuery } from '@tanstack/react-query'
import { call, codeOf, download } from '../wire/http'
import { useAct } from '../wire/hooks/useAct'
import type { ClassBook, Code } from '../wire/types.gen'

/** Asks the server to change something about classes; gives what it refused. */
export type Change = (path: string, to: unknown, method?: 'POST' | 'DELETE') => Promise<Code | null>

/** One's classes, and how they are changed. */
export function useClasses() {
  const book = useQuery({ queryKey: ['classes'], queryFn: () => call<ClassBook>('GET', '/classes') })
  const { act, problem } = useAct('classes', 'boards')
  const change: Change = (path, to, method = 'POST') => act(() => call(method, path, to))
  const fetchFile = (path: string) => act(() => download(path, 'person.zip'))
  return { book, change, fetchFile, problem: problem ?? (book.isError ? codeOf(book.error) : null) }
}
