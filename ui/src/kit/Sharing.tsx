import { Eye, Pencil, Wrench, type LucideIcon } from 'lucide-react'
import { useTranslation } from 'react-i18next'
import type { Permission, Setting } from '../wire/types.gen'
import { arrangementSign } from './arrangement'

const arrangements = (['class', 'groups', 'individual'] as const).map((value) => ({
  value,
  icon: arrangementSign[value],
}))
const permissions: Array<{ value: Permission; icon: LucideIcon }> = [
  { value: 'look', icon: Eye },
  { value: 'add', icon: Pencil },
  { value: 'together', icon: Wrench },
]

type Props = { frame: Setting; onSet: (to: Partial<Setting>) => void }

/** Who shares a frame, what students may do there, and in a plain sentence what will happen. */
export function Sharing({ frame, onSet }: Props) {
  const { t } = useTranslation()
  return (
    <div className="flex flex-col gap-3">
      <Choice
        name="arrangement"
        label={t('sharing.arrangement')}
        all={arrangements}
        value={frame.arrangement}
        onPick={(arrangement) => onSet({ arrangement })}
      />
      <Choice
        name="permission"
        label={t('sharing.permission')}
        all={permissions}
        value={frame.permission}
        onPick={(permission) => onSet({ permission })}
      />
      <p role="status" className="rounded-lg bg-dusk-soft px-3 py-2 text-sm text-night" data-part="sentence">
        {t(`sharing.says_${frame.arrangement}_${frame.permission}`)}
      </p>
    </div>
  )
}

type ChoiceProps<V extends string> = {
  name: string
  label: string
  all: ReadonlyArray<{ value: V; icon: LucideIcon }>
  value: V
  onPick: (value: V) => void
}

function Choice<V extends string>({ name, label, all, value, onPick }: ChoiceProps<V>) {
  const { t } = useTranslation()
  return (
    <fieldset>
      <legend className="mb-1 text-sm font-semibold">{label}</legend>
      <div className="flex gap-1.5">
        {all.map(({ value: v, icon: Icon }) => (
          <label
            key={v}
            className={`flex grow basis-0 cursor-pointer flex-col items-center gap-1 rounded-lg border px-1 py-1.5 text-center text-sm leading-tight has-focus-visible:outline-3 has-focus-visible:outline-offset-2 has-focus-visible:outline-dusk ${v === value ? 'border-dusk bg-paper font-semibold text-dusk' : 'border-line bg-paper text-slate hover:border-edge'}`}
          >
            <input
              type="radio"
              name={name}
              value={v}
              checked={v === value}
              onChange={() => onPick(v)}
              className="sr-only"
            />
            <Icon size={18} aria-hidden="true" />
            {t(`sharing.${v}_short`)}
          </label>
        ))}
      </div>
    </fieldset>
  )
}
