import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Button } from '../kit/Button'
import { Dialog } from '../kit/Dialog'
import { Typed } from '../kit/Typed'
import type { ClassPage, Code, ClassStudent, NameList as List, SetClass, SetStudent } from '../wire/types.gen'
import { NameList } from './NameList'

type Props = { page: ClassPage; change: (path: string, to: unknown) => Promise<Code | null> }

/** A class: its name, its students, and those who have left it. */
export function ClassCard({ page, change }: Props) {
  const { t } = useTranslation()
  const [adding, add] = useState(false)
  const at = `/classes/${page.id}`
  const set = (to: SetClass) => void change(at, to)
  const here = page.students.filter((s) => !s.left)
  const left = page.students.filter((s) => s.left)
  return (
    <section aria-label={page.name} className="rounded-2xl border border-line bg-paper p-5">
      <div className="mb-3 flex flex-wrap items-end gap-3">
        <div className="min-w-48 grow">
          <Typed label={t('classes.name')} value={page.name} limit={60} required onChange={(name) => set({ name })} />
        </div>
        <span className="py-2 text-slate">{t('boards.students', { count: here.length })}</span>
        <Button onClick={() => add(true)}>{t('classes.add')}</Button>
        <Button onClick={() => set({ archived: !page.archived })}>
          {t(page.archived ? 'classes.bringBack' : 'classes.putAway')}
        </Button>
      </div>
      <details>
        <summary className="cursor-pointer rounded-lg py-1 font-semibold">{t('classes.students')}</summary>
        <ul className="mt-2 grid gap-x-5 gap-y-2 sm:grid-cols-2">
          {here.map((student) => (
            <Student
              key={student.id}
              student={student}
              onSet={(to) => void change(`${at}/students/${student.id}`, to)}
            />
          ))}
        </ul>
        {left.length > 0 && (
          <>
            <h2 className="mt-4 mb-1 font-semibold">{t('classes.left')}</h2>
            <ul className="flex flex-wrap gap-2">
              {left.map((student) => (
                <li key={student.id} className="flex items-center gap-2 rounded-lg bg-mist ps-3">
                  <bdi>{student.name}</bdi>
                  <Button
                    look="quiet"
                    aria-label={t('classes.comesBack', student)}
                    onClick={() => void change(`${at}/students/${student.id}`, { left: false } satisfies SetStudent)}
                  >
                    {t('classes.bringBack')}
                  </Button>
                </li>
              ))}
            </ul>
          </>
        )}
      </details>
      {adding && <Add page={page} onClose={() => add(false)} onAdd={(to) => change(`${at}/students`, to)} />}
    </section>
  )
}

/** A student, renamed in place, who may leave. */
function Student({ student, onSet }: { student: ClassStudent; onSet: (to: SetStudent) => void }) {
  const { t } = useTranslation()
  return (
    <li className="flex items-center gap-2">
      <div className="grow">
        <Typed
          label={t('classes.nameOf', student)}
          hideLabel
          value={student.name}
          limit={40}
          required
          onChange={(name) => onSet({ name })}
        />
      </div>
      <Button look="quiet" aria-label={t('classes.leaves', student)} onClick={() => onSet({ left: true })}>
        {t('classes.leave')}
      </Button>
    </li>
  )
}

type AddProps = { page: ClassPage; onClose: () => void; onAdd: (to: List) => Promise<Code | null> }

/** More students of a class, from a list. */
function Add({ page, onClose, onAdd }: AddProps) {
  const { t } = useTranslation()
  const [list, setList] = useState('')
  const [count, setCount] = useState(0)
  const [busy, setBusy] = useState(false)
  const [problem, setProblem] = useState<Code | null>(null)
  async function add() {
    setBusy(true)
    const refused = await onAdd({ list })
    if (!refused) return onClose()
    setProblem(refused)
    setBusy(false)
  }
  return (
    <Dialog wide open onOpenChange={onClose} title={t('classes.addTo', page)}>
      <form
        className="flex flex-col gap-4"
        onSubmit={(e) => {
          e.preventDefault()
          void add()
        }}
      >
        <NameList of={page.id} list={list} onList={setList} onCount={setCount} />
        <Button type="submit" look="main" size="large" disabled={busy || count === 0}>
          {t('classes.addCount', { count })}
        </Button>
        <p role="alert" className="font-semibold text-rose empty:hidden">
          {problem && t(`refusal.${problem}`)}
        </p>
      </form>
    </Dialog>
  )
}
