import { useQuery } from '@tanstack/react-query'
import { QrCode } from 'lucide-react'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Dialog } from '../kit/Dialog'
import { call } from '../wire/http'
import type { Invitation as Reply } from '../wire/types.gen'

const halves = (code: string) => `${code.slice(0, 3)} ${code.slice(3)}`

/** The join code, in sight for the whole session; large with link and QR code when asked for. */
export function Invitation({ session, code }: { session: string; code: string }) {
  const { t } = useTranslation()
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
        aria-label={`${t('run.code')} ${halves(code)}. ${t('run.showCode')}`}
        className="flex items-center gap-2.5 rounded-full border-2 border-glow bg-glow-soft py-1 ps-3.5 pe-3 hover:bg-paper"
      >
        <span aria-hidden="true" className="size-2 rounded-full bg-glow" />
        <span className="font-display text-lg font-bold tracking-[0.12em] text-glow-deep">{halves(code)}</span>
        <QrCode size={18} className="text-glow-deep" aria-hidden="true" />
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
      </Dialog>
    </>
  )
}
