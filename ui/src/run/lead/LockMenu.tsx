import { Check, Lock, LockOpen } from 'lucide-react'
import { DropdownMenu } from 'radix-ui'
import { useTranslation } from 'react-i18next'
import type { Staff } from '../../wire/lesson'
import type { Lock as Command } from '../../wire/types.gen'
import { useStaffLesson } from '../../wire/useStaff'

const nobody: string[] = []

/** Lets students only look: on this frame, on all, and whoever is locked by name. */
export function LockMenu({ staff }: { staff: Staff }) {
  const { t } = useTranslation()
  const lesson = useStaffLesson()
  const { all = false, frames = nobody, students = nobody } = staff.state.locks
  const here = frames.includes(staff.state.frame)
  const locked = all || here
  const Sign = locked ? Lock : LockOpen
  const give = (lock: Command) => void lesson.give({ kind: 'lock', lock })
  const item =
    'flex cursor-default items-center gap-2 rounded-lg py-2 ps-8 pe-3 outline-none relative data-[highlighted]:bg-mist'
  const sign = (
    <DropdownMenu.ItemIndicator className="absolute start-2">
      <Check size={16} aria-hidden="true" />
    </DropdownMenu.ItemIndicator>
  )
  return (
    <DropdownMenu.Root modal={false}>
      <DropdownMenu.Trigger
        aria-label={t(locked ? 'lock.locked' : 'lock.title')}
        title={t('lock.hint')}
        data-key="lock"
        aria-keyshortcuts="Alt+L"
        className={`inline-flex min-h-10 items-center gap-2 rounded-lg border px-3 font-semibold ${locked ? 'border-glow bg-glow-soft text-glow-deep' : 'border-edge bg-paper hover:bg-mist'}`}
      >
        <Sign size={18} aria-hidden="true" />
        {students.length > 0 && !locked && <span className="tabular-nums">{students.length}</span>}
      </DropdownMenu.Trigger>
      <DropdownMenu.Content
        align="end"
        sideOffset={6}
        className="z-40 rounded-xl border border-line bg-paper p-1 shadow-lg"
      >
        <DropdownMenu.Label className="px-3 py-1.5 text-sm text-slate">{t('lock.text')}</DropdownMenu.Label>
        <DropdownMenu.CheckboxItem
          className={item}
          checked={here}
          onCheckedChange={(on) => give({ frame: staff.state.frame, on })}
        >
          {sign}
          {t('lock.frame')}
        </DropdownMenu.CheckboxItem>
        <DropdownMenu.CheckboxItem className={item} checked={all} onCheckedChange={(on) => give({ on })}>
          {sign}
          {t('lock.all')}
        </DropdownMenu.CheckboxItem>
      </DropdownMenu.Content>
    </DropdownMenu.Root>
  )
}
