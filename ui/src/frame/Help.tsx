import { useTranslation } from 'react-i18next'
import { Dialog } from '../kit/windows/Dialog'
import { toolKeys } from './hand/keys'
import '../words/windows'

const groups: Array<[string, Array<[string, string]>]> = [
  ['tools', toolKeys.map(({ key, does }) => [key, `ledge.${does}`])],
  [
    'marks',
    [
      ['Tab', 'help.next'],
      ['Space', 'help.select'],
      ['Shift Space', 'help.selectMore'],
      ['Enter', 'help.write'],
      ['← ↑ → ↓', 'help.move'],
      ['Alt ← ↑ → ↓', 'help.resize'],
      ['[  ]', 'help.turn'],
      ['Delete', 'help.remove'],
      ['Ctrl D', 'help.duplicate'],
      ['Ctrl G', 'help.group'],
      ['Ctrl ↑ ↓', 'help.stack'],
    ],
  ],
  [
    'hand',
    [
      ['← ↑ → ↓', 'help.aim'],
      ['Space', 'help.press'],
      ['Escape', 'help.letGo'],
    ],
  ],
  [
    'everywhere',
    [
      ['Ctrl Z', 'help.undo'],
      ['Ctrl Y', 'help.redo'],
      ['Ctrl A', 'help.all'],
      ['Ctrl C, X, V', 'help.clipboard'],
    ],
  ],
  [
    'view',
    [
      ['+  -', 'help.zoom'],
      ['.', 'help.fit'],
      ['Space + drag', 'help.pan'],
      ['?', 'help.help'],
    ],
  ],
]

/** All keys on one sheet. */
export default function Help({ onClose }: { onClose: () => void }) {
  const { t } = useTranslation()
  return (
    <Dialog open wide onOpenChange={onClose} title={t('help.title')} text={t('help.text')}>
      <div className="columns-1 gap-8 sm:columns-2 lg:columns-3">
        {groups.map(([name, keys]) => (
          <section key={name} className="mb-5 break-inside-avoid">
            <h3 className="mb-1.5 font-semibold">{t(`help.of_${name}`)}</h3>
            <dl className="grid grid-cols-[auto_1fr] items-baseline gap-x-3 gap-y-1.5 text-sm">
              {keys.map(([key, does]) => (
                <div key={key + does} className="contents">
                  <dt>
                    <kbd className="rounded border border-edge bg-mist px-1.5 py-0.5 font-sans text-[13px] font-semibold whitespace-nowrap">
                      {key}
                    </kbd>
                  </dt>
                  <dd>{t(does)}</dd>
                </div>
              ))}
            </dl>
          </section>
        ))}
      </div>
    </Dialog>
  )
}
