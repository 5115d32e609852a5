import { ChevronRight, MoreVertical } from 'lucide-react'
import { DropdownMenu } from 'radix-ui'
import { useState, type ReactNode } from 'react'
import { useTranslation } from 'react-i18next'
import { useLessonState } from '../../wire/hooks/useLesson'
import { useStaffLesson } from '../../wire/hooks/useStaff'

/** For how many minutes somebody may only look. */
const minutes = [2, 5, 10]
const noGroups: string[][] = []

type Props = {
  id: string
  name: string
  removed: boolean
  locked: boolean
  held: boolean
  /** Which student of the class they are; undefined where there is no class list, '' where it is not known. */
  student?: string
  onWho: (student: string) => void
  onRename: (student: string) => void
}

const more = 'grid size-7 place-items-center rounded-md text-slate hover:bg-mist'

/** The button of the menu; the menu itself is there when it is wanted. */
export function SeatButton(props: Props) {
  const { t } = useTranslation()
  const [wanted, setWanted] = useState(false)
  if (wanted) return <SeatMenu {...props} />
  return (
    <button
      type="button"
      aria-haspopup="menu"
      aria-label={t('door.more', { name: props.name })}
      className={more}
      onClick={() => setWanted(true)}
    >
      <MoreVertical size={16} aria-hidden="true" />
    </button>
  )
}

const item = 'cursor-default rounded-lg px-3 py-2 outline-none data-[highlighted]:bg-mist data-[state=open]:bg-mist'
const sheet = 'z-30 max-h-80 overflow-auto rounded-xl border border-line bg-paper p-1 shadow-lg'

/** What a teacher may do about somebody. */
function SeatMenu({ id, name, removed, locked, held, student, onWho, onRename }: Props) {
  const { t } = useTranslation()
  const lesson = useStaffLesson()
  const groups = useLessonState((s) => s.staff?.state.groups ?? noGroups)
  const lock = (on: boolean, seconds?: number) =>
    void lesson.give({ kind: 'lock', lock: { student: id, on, ...(seconds && { seconds }) } })
  return (
    <DropdownMenu.Root modal={false} defaultOpen>
      <DropdownMenu.Trigger aria-label={t('door.more', { name })} className={more}>
        <MoreVertical size={16} aria-hidden="true" />
      </DropdownMenu.Trigger>
      {/* Outside of the row: what a row contains is clipped to it. */}
      <DropdownMenu.Portal>
        <DropdownMenu.Content align="end" collisionPadding={8} className={sheet}>
          {locked ? (
            <DropdownMenu.Item className={item} onSelect={() => lock(false)}>
              {t('lock.letWork', { name })}
            </DropdownMenu.Item>
          ) : (
            <Under label={t('lock.student', { name })}>
              {minutes.map((m) => (
                <DropdownMenu.Item key={m} className={item} onSelect={() => lock(true, m * 60)}>
                  {t('lock.minutes', { count: m })}
                </DropdownMenu.Item>
              ))}
              <DropdownMenu.Item className={item} onSelect={() => lock(true)}>
                {t('lock.forNow')}
              </DropdownMenu.Item>
            </Under>
          )}
          <DropdownMenu.Item
            className={item}
            onSelect={() => void lesson.give({ kind: 'hold', hold: { student: id, on: !held } })}
          >
            {t(held ? 'hold.letGo' : 'hold.student', { name })}
          </DropdownMenu.Item>
          <DropdownMenu.Item
            className={item}
            onSelect={() => void lesson.give({ kind: 'board', board: { student: id } })}
          >
            {t('atBoard.call', { name })}
          </DropdownMenu.Item>
          {groups.length > 0 && !removed && (
            <Under label={t('groups.to', { name })}>
              {[...groups.keys(), groups.length].map((at) => (
                <DropdownMenu.CheckboxItem
                  key={at}
                  checked={groups[at]?.includes(id) ?? false}
                  className={`${item} data-[state=checked]:font-semibold data-[state=checked]:text-dusk`}
                  onSelect={() => void lesson.give({ kind: 'assign', assign: { student: id, group: at + 1 } })}
                >
                  {at < groups.length ? t('groups.name', { n: at + 1 }) : t('groups.new')}
                </DropdownMenu.CheckboxItem>
              ))}
            </Under>
          )}
          <DropdownMenu.Item className={item} onSelect={() => onRename(id)}>
            {t('rename.open', { name })}
          </DropdownMenu.Item>
          {student !== undefined && (
            <DropdownMenu.Item className={item} onSelect={() => onWho(id)}>
              {t('whoIs.open', { name })}
            </DropdownMenu.Item>
          )}
          <DropdownMenu.Item
            className={item}
            onSelect={() => void lesson.give({ kind: 'seat', seat: { student: id, remove: !removed } })}
          >
            {t(removed ? 'door.give' : 'door.take', { name })}
          </DropdownMenu.Item>
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  )
}

function Under({ label, children }: { label: string; children: ReactNode }) {
  return (
    <DropdownMenu.Sub>
      <DropdownMenu.SubTrigger className={`${item} flex items-center justify-between gap-3`}>
        {label}
        <ChevronRight size={15} aria-hidden="true" className="text-slate rtl:-scale-x-100" />
      </DropdownMenu.SubTrigger>
      <DropdownMenu.Portal>
        <DropdownMenu.SubContent collisionPadding={8} className={sheet}>
          {children}
        </DropdownMenu.SubContent>
      </DropdownMenu.Portal>
    </DropdownMenu.Sub>
  )
}
