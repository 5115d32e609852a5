import { Printer } from 'lucide-react'
import { Tabs } from 'radix-ui'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Link, useNavigate, useParams } from 'react-router'
import { Button } from '../kit/Button'
import { Page } from '../kit/Page'
import { Refusal } from '../kit/Refusal'
import { ToSignIn } from '../kit/ToSignIn'
import { Typed } from '../kit/fields/Typed'
import { useTitle } from '../kit/hooks/useTitle'
import { call } from '../wire/http'
import type { ClassMade, ClassPage, SetClass } from '../wire/types.gen'
import { ListDialog } from './ListDialog'
import { NextYear } from './NextYear'
import { Records } from './Records'
import { Groups } from './Groups'
import { Keep } from './Keep'
import { Seats } from './Seats'
import { Students } from './Students'
import { Together } from './Together'
import { useClasses, type Change } from './useClasses'

const rooms = ['students', 'groups', 'seats', 'teachers', 'records'] as const

/** A class: its students, its groups and seats, and who teaches it. */
export function ClassView() {
  const { t } = useTranslation()
  const { class: id } = useParams()
  const { book, change, changePlan, fetchFile, problem } = useClasses()
  const page = book.data?.classes.find((c) => c.id === id)
  useTitle(page?.name ?? t('classes.title'))
  if (problem === 'sign-in-needed') return <ToSignIn />
  return (
    <Page title={page?.name ?? t('classes.title')} back={{ to: '/classes', name: t('classes.title') }}>
      {book.isPending && <p role="status">{t('loading')}</p>}
      <Refusal code={problem ?? (book.data && !page ? 'no-such-class' : null)} />
      {page && book.data && (
        <>
          <About page={page} change={change} />
          <Tabs.Root defaultValue="students">
            <Tabs.List className="mb-4 flex flex-wrap gap-1 border-b border-line" aria-label={page.name}>
              {rooms.map((room) => (
                <Tabs.Trigger
                  key={room}
                  value={room}
                  className="-mb-px border-b-3 border-transparent px-3 py-2 font-semibold text-slate hover:text-night data-[state=active]:border-dusk data-[state=active]:text-dusk"
                >
                  {t(`classes.room_${room}`)}
                </Tabs.Trigger>
              ))}
            </Tabs.List>
            <Tabs.Content value="students">
              <Students page={page} others={book.data.classes} change={change} onFile={fetchFile} />
            </Tabs.Content>
            <Tabs.Content value="groups">
              <Groups page={page} onChange={(to) => changePlan(page, to)} />
            </Tabs.Content>
            <Tabs.Content value="seats">
              <Seats page={page} onChange={(seats) => changePlan(page, { seats })} />
            </Tabs.Content>
            <Tabs.Content value="teachers">
              <Together page={page} colleagues={book.data.colleagues} change={change} />
            </Tabs.Content>
            <Tabs.Content value="records">
              <Records page={page} />
              <Keep page={page} change={change} />
            </Tabs.Content>
          </Tabs.Root>
        </>
      )}
    </Page>
  )
}

/** The name of a class, and what is done with it as a whole. */
function About({ page, change }: { page: ClassPage; change: Change }) {
  const { t } = useTranslation()
  const navigate = useNavigate()
  const [window, show] = useState<'add' | 'next' | null>(null)
  const at = `/classes/${page.id}`
  const set = (to: SetClass) => void change(at, to)
  return (
    <div className="flex flex-wrap items-end gap-3">
      <div className="min-w-48 grow">
        <Typed label={t('classes.name')} value={page.name} limit={60} required onChange={(name) => set({ name })} />
      </div>
      <Button onClick={() => show('add')}>{t('classes.add')}</Button>
      <Link
        to={`${at}/cards`}
        className="inline-flex items-center gap-2 rounded-lg border border-edge bg-paper px-3 py-1.5 font-semibold hover:bg-mist"
      >
        <Printer size={17} aria-hidden="true" />
        {t('cards.open')}
      </Link>
      {!page.archived && <Button onClick={() => show('next')}>{t('classes.next')}</Button>}
      <Button onClick={() => set({ archived: !page.archived })}>
        {t(page.archived ? 'classes.bringBack' : 'classes.putAway')}
      </Button>
      {window === 'add' && (
        <ListDialog
          title={t('classes.addTo', page)}
          of={page.id}
          yes="classes.addCount"
          onClose={() => show(null)}
          onTake={(list) => change(`${at}/students`, list)}
        />
      )}
      {window === 'next' && (
        <NextYear
          page={page}
          onClose={() => show(null)}
          onMake={async (name) => {
            const made = await call<ClassMade>('POST', `${at}/next`, { name })
            await change(at, {}) // nothing but to read the classes anew
            void navigate(`/classes/${made.class}`)
            show(null)
          }}
        />
      )}
    </div>
  )
}
