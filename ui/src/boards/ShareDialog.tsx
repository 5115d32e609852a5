import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Button } from '../kit/Button'
import { Dialog } from '../kit/windows/Dialog'
import { call, codeOf } from '../wire/http'
import type { BoardItem, Shared } from '../wire/types.gen'

/** The link by which colleagues take a copy of a board. */
export function ShareDialog({ board, onClose }: { board: BoardItem; onClose: () => void }) {
  const { t } = useTranslation()
  const [copied, setCopied] = useState(false)
  const shared = useQuery({
    queryKey: ['share', board.id],
    queryFn: () => call<Shared>('POST', `/boards/${board.id}/link`, {}),
  })
  return (
    <Dialog open onOpenChange={onClose} title={t('boards.share')} text={t('boards.shareText')}>
      {shared.isError && (
        <p role="alert" className="font-semibold text-rose">
          {t(`refusal.${codeOf(shared.error)}`)}
        </p>
      )}
      {shared.data && (
        <div className="flex gap-2">
          <input
            readOnly
            aria-label={t('boards.share')}
            value={shared.data.link}
            onFocus={(e) => e.target.select()}
            className="grow rounded-lg border border-edge bg-snow px-3 py-2"
          />
          <Button
            look="main"
            onClick={() => void navigator.clipboard.writeText(shared.data.link).then(() => setCopied(true))}
          >
            {t(copied ? 'boards.copied' : 'boards.copyLink')}
          </Button>
        </div>
      )}
    </Dialog>
  )
}
