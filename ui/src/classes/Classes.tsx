import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Link } from 'react-router'
import { Button } from '../kit/Button'
import { Page } from '../kit/Page'
import { Refusal } from '../kit/Refusal'
import { ToSignIn } from '../kit/ToSignIn'
import { useTitle } from '../kit/hooks/useTitle'
import type { ClassPage } from '../wire/types.gen'
import { FromRegister } from './FromRegister'
import { ListDialog } from './ListDialog'
import { useClasses } from './useClasses'

/** One's classes: made from a list or the register, each with a page of its own. */
export function Classes() {
  const { t } = useTranslation()
  useTitle(t('classes.title'))
  const { book, change, problem } = useClasses()
  const [making, make] = useState<'list' | 'register' | null>(null)
  if (problem === 'sign-in-needed') return <ToSignIn />
  const here = book.data?.classes.filter((c) => !c.archived) ?? []
  const away = book.data?.classes.filter((c) => c.archived) ?? []
  return (
    <Page
      title={t('classes.title')}
      action={
        <>
          <Button onClick={() => make('register')}>{t('register.open')}</Button>
          <Button look="main" onClick={() => make('list')}>
            {t('classes.new')}
          </Button>
        </>
      }
    >
      {book.isPending && <p role="status">{t('loading')}</p>}
      <Refusal code={problem} />
      {book.data?.classes.length === 0 && (
        <p className="rounded-xl border border-dashed border-edge p-8 text-center text-slate">{t('classes.none')}</p>
      )}
      {here.length > 0 && <Cards classes={here} />}
      {away.length > 0 && (
        <details>
          <summary className="cursor-pointer rounded-lg py-2 font-semibold">
            {t('classes.away', { count: away.length })}
          </summary>
          <Cards classes={away} />
        </details>
      )}
      {making === 'list' && (
        <ListDialog
          title={t('classes.new')}
          named
          yes="classes.make"
          onClose={() => make(null)}
          onTake={(list, name) => change('/classes', { name, ...list })}
        />
      )}
      {making === 'register' && <FromRegister onClose={() => make(null)} />}
    </Page>
  )
}

function Cards({ classes }: { classes: ClassPage[] }) {
  const { t } = useTranslation()
  return (
    <ul className="grid gap-4 sm:grid-cols-2 lg:grid-cols-3">
      {classes.map((c) => (
        <li key={c.id}>
          <Link
            to={`/classes/${c.id}`}
            className="flex h-full flex-col gap-1 rounded-2xl border border-line bg-paper p-5 hover:border-edge"
          >
            <span className="font-display text-xl font-semibold break-words">
              <bdi>{c.name}</bdi>
            </span>
            <span className="text-slate">
              {t('boards.students', { count: c.students.filter((s) => !s.left).length })}
            </span>
            {c.teachers.length > 0 && (
              <span className="truncate text-slate">
                {t('classes.withNames', { names: c.teachers.map((k) => k.name).join(', ') })}
              </span>
            )}
          </Link>
        </li>
      ))}
    </ul>
  )
}
