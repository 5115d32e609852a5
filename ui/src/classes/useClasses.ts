import { useQuery, useQueryClient } from '@tanstack/react-query'
import { call, codeOf, download } from '../wire/http'
import { useAct } from '../wire/hooks/useAct'
import type { ClassBook, ClassPage, ClassPlan, Code } from '../wire/types.gen'

/** Asks the server to change something about classes; gives what it refused. */
export type Change = (path: string, to: unknown, method?: 'POST' | 'DELETE') => Promise<Code | null>

/** Changes a class's groups, seats and who stays apart; the next change starts from this one. */
export type ChangePlan = (page: ClassPage, to: Partial<ClassPlan>) => void

/** One's classes, and how they are changed. */
export function useClasses() {
  const queries = useQueryClient()
  const book = useQuery({ queryKey: ['classes'], queryFn: () => call<ClassBook>('GET', '/classes') })
  const { act, problem } = useAct('classes', 'boards')
  const change: Change = (path, to, method = 'POST') => act(() => call(method, path, to))
  const changePlan: ChangePlan = (page, to) => {
    const plan = { ...page.plan, ...to }
    void queries.cancelQueries({ queryKey: ['classes'] })
    queries.setQueryData<ClassBook>(
      ['classes'],
      (was) => was && { ...was, classes: was.classes.map((c) => (c.id === page.id ? { ...c, plan } : c)) },
    )
    void change(`/classes/${page.id}/plan`, plan)
  }
  const fetchFile = (path: string) => act(() => download(path, 'person.zip'))
  return { book, change, changePlan, fetchFile, problem: problem ?? (book.isError ? codeOf(book.error) : null) }
}
