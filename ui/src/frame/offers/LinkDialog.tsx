import { useState, type FormEvent } from 'react'
import { useTranslation } from 'react-i18next'
import { v7 as uuidv7 } from 'uuid'
import { Button } from '../../kit/Button'
import { Dialog } from '../../kit/windows/Dialog'
import { Field } from '../../kit/fields/Field'
import { freePlace } from '../paint/geometry'
import { useHand } from '../hand/useHand'
import '../../words/windows'

/** Asks for a web address and lays a link on the frame. */
export default function LinkDialog({ onClose }: { onClose: () => void }) {
  const { t } = useTranslation()
  const hand = useHand()
  const [url, setURL] = useState('')
  const [title, setTitle] = useState('')
  const [wrong, setWrong] = useState(false)
  function submit(e: FormEvent) {
    e.preventDefault()
    const full = /^[a-z]+:/i.test(url.trim()) ? url.trim() : `https://${url.trim()}`
    if (!safe(full)) {
      setWrong(true)
      return
    }
    const mark = uuidv7()
    const [w, h] = [520, 100]
    const place = freePlace([...hand.ground.frame.prepared, ...hand.ground.marks], w, h, hand.middle())
    hand.do([
      {
        kind: 'add',
        add: { mark, ...place, w, h, free: true, kind: 'link', link: { url: full, title: title.trim() } },
      },
    ])
    hand.set({ selected: new Set([mark]), tool: 'select' })
    onClose()
  }
  return (
    <Dialog open onOpenChange={onClose} title={t('link.title')}>
      <form onSubmit={submit} noValidate className="flex flex-col gap-4">
        <Field
          label={t('link.url')}
          value={url}
          type="url"
          inputMode="url"
          maxLength={2000}
          placeholder="https://"
          onChange={(e) => {
            setURL(e.target.value)
            setWrong(false)
          }}
          problem={wrong ? t('refusal.bad-link') : null}
        />
        <Field label={t('link.name')} value={title} maxLength={200} onChange={(e) => setTitle(e.target.value)} />
        <div className="flex justify-end gap-2">
          <Button onClick={onClose}>{t('cancel')}</Button>
          <Button look="main" type="submit">
            {t('link.add')}
          </Button>
        </div>
      </form>
    </Dialog>
  )
}

function safe(text: string): boolean {
  try {
    const url = new URL(text)
    return /^https?:$/.test(url.protocol) && url.hostname !== '' && url.username === '' && url.password === ''
  } catch {
    return false
  }
}
