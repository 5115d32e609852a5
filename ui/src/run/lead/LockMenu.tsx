import { Check, Clock, Lock, LockOpen, VenetianMask } from 'lucide-react'
import { DropdownMenu } from 'radix-ui'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import type { Staff } from '../../wire/lesson'
import type { HoldWork, Lock as Command } from '../../wire/types.gen'
import { useStaffLesson } from '../../wire/hooks/useStaff'
import { HoldWords } from '../steer/HoldWords'

const nobody: string[] = []

/** What students may do: only look, write what waits for a yes, see names; on this frame or on all. */
export function LockMenu({ staff }: { staff: Staff }) {
  const { t } = useTranslation()
  const lesson = useStaffLesson()
  const { all = false, frames = nobody, students = nobody } = staff.state.locks
  const here = frames.includes(staff.state.frame)
  const locked = all || here
  const { holds } = staff.state
  const hold = (h: HoldWork) => void lesson.give({ kind: 'hold', hold: h })
  const holding = holds.all || holds.words || holds.frames?.includes(staff.state.frame)
  const [wording, setWording] = useState(false)
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
        {holding && <Clock size={16} aria-label={t('hold.on')} className="text-amber" />}
        {staff.state.nameless && <VenetianMask size={16} aria-label={t('names.areOff')} className="text-dusk" />}
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
        <DropdownMenu.Separator className="my-1 border-t border-line" />
        <DropdownMenu.Label className="px-3 py-1.5 text-sm text-slate">{t('hold.text')}</DropdownMenu.Label>
        <DropdownMenu.CheckboxItem
          className={item}
          checked={holds.frames?.includes(staff.state.frame) ?? false}
          onCheckedChange={(on) => hold({ frame: staff.state.frame, on })}
        >
          {sign}
          {t('hold.here')}
        </DropdownMenu.CheckboxItem>
        <DropdownMenu.CheckboxItem className={item} checked={holds.all ?? false} onCheckedChange={(on) => hold({ on })}>
          {sign}
          {t('hold.everywhere')}
        </DropdownMenu.CheckboxItem>
        <DropdownMenu.CheckboxItem
          className={item}
          checked={holds.words ?? false}
          onCheckedChange={() => setWording(true)}
        >
          {sign}
          {t('hold.wordsItem')}
        </DropdownMenu.CheckboxItem>
        <DropdownMenu.Separator className="my-1 border-t border-line" />
        <DropdownMenu.CheckboxItem
          className={item}
          checked={staff.state.nameless ?? false}
          onCheckedChange={(off) => void lesson.give({ kind: 'names', names: { off } })}
        >
          {sign}
          {t('names.off')}
        </DropdownMenu.CheckboxItem>
      </DropdownMenu.Content>
      {wording && <HoldWords staff={staff} onClose={() => setWording(false)} />}
    </DropdownMenu.Root>
  )
}
