import { Eye, Pencil, Wrench, type LucideIcon } from 'lucide-react'
import { useTranslation } from 'react-i18next'
import type { Permission, Use } from '../wire/types.gen'
import { arrangementSign } from './arrangement'
import { Choice } from './fields/Choice'

const arrangements = (['class', 'groups', 'individual'] as const).map((value) => ({
  value,
  icon: arrangementSign[value],
}))
const permissions: Array<{ value: Permission; icon: LucideIcon }> = [
  { value: 'look', icon: Eye },
  { value: 'add', icon: Pencil },
  { value: 'together', icon: Wrench },
]

/** How a frame is used. */
export type Setting = Omit<Use, 'frame'>

type Props = { frame: Setting; onSet: (to: Partial<Setting>) => void }

/** Who shares a frame, what students may do there, and in a plain sentence what will happen. */
export function Sharing({ frame, onSet }: Props) {
  const { t } = useTranslation()
  return (
    <div className="flex flex-col gap-3">
      <Choice
        name="arrangement"
        label={t('sharing.arrangement')}
        all={arrangements.map((a) => ({ ...a, label: t(`sharing.${a.value}_short`) }))}
        value={frame.arrangement}
        onPick={(arrangement) => onSet({ arrangement })}
      />
      <Choice
        name="permission"
        label={t('sharing.permission')}
        all={permissions.map((p) => ({ ...p, label: t(`sharing.${p.value}_short`) }))}
        value={frame.permission}
        onPick={(permission) => onSet({ permission })}
      />
      <label className="flex items-center gap-2">
        <input
          type="checkbox"
          checked={frame.replies ?? false}
          onChange={(e) => onSet({ replies: e.target.checked })}
          className="size-4 accent-dusk"
        />
        {t('sharing.replies')}
      </label>
      <p role="status" className="rounded-lg bg-dusk-soft px-3 py-2 text-sm text-night" data-part="sentence">
        {t(`sharing.says_${frame.arrangement}_${frame.permission}`)}
      </p>
    </div>
  )
}
