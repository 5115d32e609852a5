import type { ReactNode } from 'react'
import { useTranslation } from 'react-i18next'
import { NavLink } from 'react-router'
import { Page } from '../kit/Page'
import { useTitle } from '../kit/hooks/useTitle'
import { useMe } from '../wire/hooks/useMe'

const rooms = ['settings', 'account'] as const
const forAdministrators = ['school', 'staff', 'journal'] as const

type Props = {
  room: (typeof rooms)[number] | (typeof forAdministrators)[number]
  action?: ReactNode
  children: ReactNode
}

/** One page for all that is about oneself and the school, with a room for each. */
export function Rooms({ room, action, children }: Props) {
  const { t } = useTranslation()
  useTitle(t(`rooms.${room}`))
  const administrator = useMe().data?.teacher?.role === 'administrator'
  return (
    <Page title={t(`rooms.${room}`)} action={action}>
      <nav aria-label={t('rooms.all')} className="-mt-2 flex flex-wrap gap-1 border-b border-line">
        {[...rooms, ...(administrator ? forAdministrators : [])].map((to) => (
          <NavLink
            key={to}
            to={`/${to}`}
            className={({ isActive }) =>
              `-mb-px border-b-3 px-3 py-2 font-semibold ${isActive ? 'border-dusk text-dusk' : 'border-transparent text-slate hover:text-night'}`
            }
          >
            {t(`rooms.${to}`)}
          </NavLink>
        ))}
      </nav>
      {children}
    </Page>
  )
}
