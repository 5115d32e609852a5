import { useTranslation } from 'react-i18next'
import type { Receipt } from '../../wire/types.gen'
import { when } from '../../words/words'
import { Button } from '../Button'
import { Dialog } from './Dialog'

const kinds = ['classes', 'lessons', 'marks', 'changes', 'pictures', 'mentions'] as const

/** What was erased and where it was, to be printed: it is told once. */
export function ReceiptDialog({ receipt, name, onClose }: { receipt: Receipt; name: string; onClose: () => void }) {
  const { t } = useTranslation()
  return (
    <Dialog open onOpenChange={onClose} title={t('receipt.title', { name })} text={when(receipt.at)}>
      <dl className="grid grid-cols-[auto_1fr] gap-x-4 gap-y-1">
        {kinds.map((kind) => (
          <div key={kind} className="contents">
            <dt className="text-slate">{t(`receipt.${kind}`)}</dt>
            <dd className="tabular-nums">{receipt[kind]}</dd>
          </div>
        ))}
        <dt className="text-slate">{t('receipt.card')}</dt>
        <dd>{t(receipt.card ? 'receipt.yes' : 'receipt.no')}</dd>
      </dl>
      <p className="my-4 text-slate">{t('receipt.text')}</p>
      <Button className="self-end" look="main" onClick={() => print()}>
        {t('cards.print')}
      </Button>
    </Dialog>
  )
}
