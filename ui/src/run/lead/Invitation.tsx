import { useQuery } from '@tanstack/react-query'
import { DoorClosed, QrCode } from 'lucide-react'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Dialog } from '../../kit/windows/Dialog'
import { call } from '../../wire/http'
import type { Invitation as Reply, State } from '../../wire/types.gen'
import { DoorChoices } from './DoorChoices'

const halves = (code: string) => `${code.slice(0, 3)} ${code.slice(3)}`

/** The join code, in sight for the whole session; large with link and QR code when asked for. */
type Props = { session: string; code: string; state: State; listed: boolean }

export function Invitation({ session, code, state, listed }: Props) {
  const { t } = useTranslation()
  const waiting = state.waiting?.length ?? 0
  const [open, setOpen] = useState(false)
  const invitation = useQuery({
    queryKey: ['invitation', session],
    queryFn: () => call<Reply>('GET', `/sessions/${session}/invitation`),
  })
  const link = invitation.data?.link ?? ''
  return (
    <>
      <button
        type="button"
        onClick={() => setOpen(true)}
        aria-label={`${t('run.code')} ${halves(code)}. ${waiting > 0 ? `${t('door.waiting', { count: waiting })}. ` : ''}${t('run.showCode')}`}
        className="flex items-center gap-2.5 rounded-full border-2 border-glow bg-glow-soft py-1 ps-3.5 pe-3 hover:bg-paper"
      >
        {state.closed ? (
          <DoorClosed size={17} className="text-glow-deep" aria-label={t('door.shut')} />
        ) : (
          <span aria-hidden="true" className="size-2 rounded-full bg-glow" />
        )}
        <span className="font-display text-lg font-bold tracking-[0.12em] text-glow-deep">{halves(code)}</span>
        <QrCode size={18} className="text-glow-deep" aria-hidden="true" />
        {waiting > 0 && (
          <span
            aria-hidden="true"
            title={t('door.waiting', { count: waiting })}
            className="min-w-6 rounded-full bg-glow-deep px-1.5 text-center font-bold text-paper tabular-nums"
          >
            {waiting}
          </span>
        )}
      </button>
      <Dialog wide open={open} onOpenChange={setOpen} title={t('run.code')} text={t('run.joinAt')}>
        <div className="flex flex-col items-center gap-3 pb-2 lg:flex-row lg:justify-around">
          <div className="text-center">
            <p className="font-display text-[clamp(3.5rem,10vw,7.5rem)] leading-none font-bold tracking-[0.1em]">
              {halves(code)}
            </p>
            <p className="mt-5 text-2xl break-all">{link}</p>
          </div>
          <img src={`/api/sessions/${session}/qr.svg`} alt={t('run.qr', { link })} className="size-[min(60vh,24rem)]" />
        </div>
        <DoorChoices state={state} listed={listed} />
      </Dialog>
    </>
  )
}
