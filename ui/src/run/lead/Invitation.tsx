import { useQuery } from '@tanstack/react-query'
import { DoorClosed, QrCode } from 'lucide-react'
import { Switch } from 'radix-ui'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Dialog } from '../../kit/windows/Dialog'
import { call } from '../../wire/http'
import type { Invitation as Reply } from '../../wire/types.gen'
import { useWish } from '../useWish'

const halves = (code: string) => `${code.slice(0, 3)} ${code.slice(3)}`

/** The join code, in sight for the whole session; large with link and QR code when asked for. */
type Props = { session: string; code: string; closed: boolean; waiting: number }

export function Invitation({ session, code, closed, waiting }: Props) {
  const { t } = useTranslation()
  const [shut, shutDoor] = useWish(closed, (wish: boolean) => ({ kind: 'door', door: { closed: wish } }))
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
        {shut ? (
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
        <div className="mt-3 flex items-center gap-3 border-t border-line pt-3">
          <Switch.Root
            checked={shut}
            aria-labelledby="door"
            aria-describedby="door-text"
            onCheckedChange={shutDoor}
            className="h-6 w-11 shrink-0 rounded-full border border-edge bg-mist p-0.5 data-[state=checked]:bg-dusk"
          >
            <Switch.Thumb className="block size-4.5 rounded-full bg-paper shadow transition-transform data-[state=checked]:translate-x-5 rtl:data-[state=checked]:-translate-x-5" />
          </Switch.Root>
          <span>
            <b id="door" className="block font-semibold">
              {t('door.close')}
            </b>
            <span id="door-text" className="text-slate">
              {t('door.closeText')}
            </span>
          </span>
        </div>
      </Dialog>
    </>
  )
}
