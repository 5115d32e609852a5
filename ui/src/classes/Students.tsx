import { useQueryClient } from '@tanstack/react-query'
import { MoreVertical } from 'lucide-react'
import { DropdownMenu } from 'radix-ui'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Button } from '../kit/Button'
import { Confirm } from '../kit/windows/Confirm'
import { PickOne } from '../kit/windows/PickOne'
import { ReceiptDialog } from '../kit/windows/ReceiptDialog'
import { Typed } from '../kit/fields/Typed'
import { call, Refused } from '../wire/http'
import type { ClassPage, ClassStudent, MergeStudents, MoveStudent, Receipt, SetStudent } from '../wire/types.gen'
import type { Change } from './useClasses'

type Props = {
  page: ClassPage
  others: ClassPage[]
  change: Change
  /** Fetches a file; what is refused is said with the rest of the page. */
  onFile: (path: string) => Promise<unknown>
}
type Window = { kind: 'move' | 'merge' | 'card' | 'erase'; student: ClassStudent }

/** The students of a class, and those who have left it. */
export function Students({ page, others, change, onFile }: Props) {
  const { t } = useTranslation()
  const queries = useQueryClient()
  const [window, show] = useState<Window | null>(null)
  const [receipt, setReceipt] = useState<{ of: string; receipt: Receipt } | null>(null)
  const at = (student: ClassStudent) => `/classes/${page.id}/students/${student.id}`
  const set = (student: ClassStudent, to: SetStudent) => void change(at(student), to)
  const here = page.students.filter((s) => !s.left)
  const left = page.students.filter((s) => s.left)
  const refusing = async (path: string, to: unknown, method?: 'POST' | 'DELETE') => {
    const refused = await change(path, to, method)
    if (refused) throw new Refused(refused)
    show(null)
  }
  return (
    <>
      {here.length === 0 && <p className="text-slate">{t('classes.noStudents')}</p>}
      <ol className="grid gap-x-6 gap-y-1 sm:grid-cols-2">
        {here.map((student) => (
          <Row
            key={student.id}
            student={student}
            onFile={() => void onFile(`${at(student)}/file`)}
            onSet={(to) => set(student, to)}
            onOpen={(kind) => show({ kind, student })}
          />
        ))}
      </ol>
      {left.length > 0 && (
        <>
          <h2 className="mt-6 mb-2 text-lg">{t('classes.left')}</h2>
          <ul className="flex flex-wrap gap-2">
            {left.map((student) => (
              <li key={student.id} className="flex items-center gap-2 rounded-lg bg-mist ps-3">
                <bdi>{student.name}</bdi>
                <Button
                  look="quiet"
                  aria-label={t('classes.comesBack', student)}
                  onClick={() => set(student, { left: false })}
                >
                  {t('classes.bringBack')}
                </Button>
              </li>
            ))}
          </ul>
        </>
      )}
      {window?.kind === 'move' && (
        <PickOne
          title={t('classes.moveTitle', window.student)}
          text={t('classes.moveText')}
          label={t('classes.name')}
          yes={t('classes.moveYes')}
          options={others.filter((c) => c.id !== page.id && !c.archived)}
          onClose={() => show(null)}
          onPick={(to) => refusing(`${at(window.student)}/move`, { to } satisfies MoveStudent)}
        />
      )}
      {window?.kind === 'merge' && (
        <PickOne
          title={t('classes.mergeTitle', window.student)}
          text={t('classes.mergeText', window.student)}
          label={t('classes.mergeWith')}
          yes={t('classes.mergeYes')}
          options={page.students
            .filter((s) => s.id !== window.student.id)
            .map((s) => ({ id: s.id, name: s.apart ?? s.name }))}
          onClose={() => show(null)}
          onPick={(other) => refusing(`${at(window.student)}/merge`, { with: other } satisfies MergeStudents)}
        />
      )}
      <Confirm
        open={window?.kind === 'card'}
        onOpenChange={() => show(null)}
        title={t('cards.lostTitle', window?.student)}
        text={t('cards.lostText')}
        yes={t('cards.lostYes')}
        onYes={() => refusing(`/classes/${page.id}/cards/${window!.student.id}`, undefined, 'DELETE')}
      />
      <Confirm
        open={window?.kind === 'erase'}
        onOpenChange={() => show(null)}
        title={t('rights.eraseTitle', window?.student)}
        text={t('rights.eraseText')}
        yes={t('rights.eraseYes')}
        onYes={async () => {
          const { student } = window!
          setReceipt({ of: student.name, receipt: await call<Receipt>('DELETE', at(student)) })
          show(null)
          await queries.invalidateQueries({ queryKey: ['classes'] })
        }}
      />
      {receipt && <ReceiptDialog name={receipt.of} receipt={receipt.receipt} onClose={() => setReceipt(null)} />}
    </>
  )
}

type RowProps = {
  student: ClassStudent
  /** Fetches everything about them. */
  onFile: () => void
  onSet: (to: SetStudent) => void
  onOpen: (kind: Window['kind']) => void
}

/** A student, renamed in place, with what else is done about them. */
function Row({ student, onFile, onSet, onOpen }: RowProps) {
  const { t } = useTranslation()
  const item = 'cursor-default rounded-lg px-3 py-2 outline-none data-[highlighted]:bg-mist'
  return (
    <li className="flex items-start gap-2">
      <div className="min-w-0 grow">
        <Typed
          label={t('classes.nameOf', { name: student.apart ?? student.name })}
          hideLabel
          value={student.name}
          limit={40}
          required
          onChange={(name) => onSet({ name })}
        />
        {student.apart && (
          <span className="ms-2.5 inline-block rounded-md bg-amber-soft px-2 py-0.5 text-sm text-amber">
            {t('classes.apart', { name: student.apart })}
          </span>
        )}
      </div>
      <DropdownMenu.Root modal={false}>
        <DropdownMenu.Trigger
          aria-label={t('classes.more', { name: student.apart ?? student.name })}
          className="grid size-9 shrink-0 place-items-center rounded-lg text-slate hover:bg-mist"
        >
          <MoreVertical size={18} aria-hidden="true" />
        </DropdownMenu.Trigger>
        <DropdownMenu.Portal>
          <DropdownMenu.Content align="end" className="z-30 rounded-xl border border-line bg-paper p-1 shadow-lg">
            <DropdownMenu.Item className={item} onSelect={() => onOpen('move')}>
              {t('classes.move')}
            </DropdownMenu.Item>
            <DropdownMenu.Item className={item} onSelect={() => onOpen('merge')}>
              {t('classes.merge')}
            </DropdownMenu.Item>
            <DropdownMenu.Item className={item} onSelect={() => onOpen('card')}>
              {t('cards.lost')}
            </DropdownMenu.Item>
            <DropdownMenu.Item className={item} onSelect={() => onSet({ left: true })}>
              {t('classes.leave')}
            </DropdownMenu.Item>
            <DropdownMenu.Separator className="my-1 h-px bg-line" />
            <DropdownMenu.Item className={item} onSelect={onFile}>
              {t('rights.file')}
            </DropdownMenu.Item>
            <DropdownMenu.Item className={`${item} text-rose`} onSelect={() => onOpen('erase')}>
              {t('rights.erase')}
            </DropdownMenu.Item>
          </DropdownMenu.Content>
        </DropdownMenu.Portal>
      </DropdownMenu.Root>
    </li>
  )
}
