import { useQuery, useQueryClient } from '@tanstack/react-query'
import { MoreVertical } from 'lucide-react'
import { DropdownMenu } from 'radix-ui'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Button } from '../kit/Button'
import { Dialog } from '../kit/Dialog'
import { Field } from '../kit/Field'
import { Page } from '../kit/Page'
import { ToSignIn } from '../kit/ToSignIn'
import { useTitle } from '../kit/useTitle'
import { call, codeOf } from '../wire/http'
import type { Code, Invite, InviteLink, SetStanding, Staff as Reply, StaffPerson, StaffRole } from '../wire/types.gen'
import { when } from '../words/words'

/** The people of the staff, for administrators: invite, change roles, let leave and come back. */
export function Staff() {
  const { t } = useTranslation()
  useTitle(t('staff.title'))
  const queries = useQueryClient()
  const list = useQuery({ queryKey: ['staff'], queryFn: () => call<Reply>('GET', '/staff') })
  const [inviting, setInviting] = useState(false)
  const [link, setLink] = useState<{ name: string; link: InviteLink } | null>(null)
  const [problem, setProblem] = useState<Code | null>(null)
  if (list.isError && codeOf(list.error) === 'sign-in-needed') return <ToSignIn />
  /** Does something; what is refused is said above the list. */
  async function attempt(work: () => Promise<void>) {
    setProblem(null)
    try {
      await work()
    } catch (error) {
      setProblem(codeOf(error))
    }
    await queries.invalidateQueries({ queryKey: ['staff'] })
  }
  const set = (person: StaffPerson, to: SetStanding) =>
    void attempt(async () => void (await call('POST', `/staff/people/${person.id}`, to)))
  const password = (person: StaffPerson) =>
    void attempt(async () =>
      setLink({ name: person.name, link: await call<InviteLink>('POST', `/staff/people/${person.id}/password`, {}) }),
    )
  return (
    <Page
      title={t('staff.title')}
      action={
        <Button look="main" onClick={() => setInviting(true)}>
          {t('staff.invite')}
        </Button>
      }
    >
      <p className="text-slate">{t('staff.text')}</p>
      {list.isPending && <p role="status">{t('loading')}</p>}
      {(problem ?? (list.isError ? codeOf(list.error) : null)) && (
        <p role="alert" className="font-semibold text-rose">
          {t(`refusal.${problem ?? codeOf(list.error)}`)}
        </p>
      )}
      {list.data && (
        <ul className="divide-y divide-line rounded-xl border border-line bg-paper">
          {list.data.people.map((person) => (
            <li key={person.id} className="flex items-center gap-3 px-4 py-3">
              <span className="min-w-0 grow">
                <span className={`block truncate font-semibold ${person.left ? 'text-slate' : ''}`}>
                  <bdi>{person.name}</bdi>{' '}
                  {person.me && <span className="font-normal text-slate">{t('staff.you')}</span>}
                </span>
                <span className="block truncate text-slate">{person.email}</span>
              </span>
              <span className="rounded-md bg-mist px-2 py-0.5 text-sm text-slate">
                {t(person.left ? 'staff.left' : `staff.${person.role}`)}
              </span>
              <More person={person} onSet={(to) => set(person, to)} onPassword={() => password(person)} />
            </li>
          ))}
        </ul>
      )}
      {inviting && <InviteDialog onClose={() => setInviting(false)} />}
      {link && (
        <Dialog
          open
          onOpenChange={() => setLink(null)}
          title={t('staff.passwordFor', link)}
          text={t('staff.passwordText')}
        >
          <LinkToCopy link={link.link} />
        </Dialog>
      )}
    </Page>
  )
}

type MoreProps = { person: StaffPerson; onSet: (to: SetStanding) => void; onPassword: () => void }

/** What an administrator may do about somebody. */
function More({ person, onSet, onPassword }: MoreProps) {
  const { t } = useTranslation()
  const item = 'cursor-default rounded-lg px-3 py-2 outline-none data-[highlighted]:bg-mist'
  const other: StaffRole = person.role === 'teacher' ? 'administrator' : 'teacher'
  return (
    <DropdownMenu.Root modal={false}>
      <DropdownMenu.Trigger
        aria-label={t('staff.more', person)}
        className="grid size-10 place-items-center rounded-lg text-slate hover:bg-mist"
      >
        <MoreVertical size={18} aria-hidden="true" />
      </DropdownMenu.Trigger>
      <DropdownMenu.Content align="end" className="z-30 rounded-xl border border-line bg-paper p-1 shadow-lg">
        {!person.left && (
          <>
            <DropdownMenu.Item className={item} onSelect={() => onSet({ role: other })}>
              {t(`staff.make_${other}`)}
            </DropdownMenu.Item>
            <DropdownMenu.Item className={item} onSelect={onPassword}>
              {t('staff.password')}
            </DropdownMenu.Item>
          </>
        )}
        <DropdownMenu.Item className={item} onSelect={() => onSet({ left: !person.left })}>
          {t(person.left ? 'staff.comeBack' : 'staff.leave')}
        </DropdownMenu.Item>
      </DropdownMenu.Content>
    </DropdownMenu.Root>
  )
}

/** Makes a link to an account, to be handed on. */
function InviteDialog({ onClose }: { onClose: () => void }) {
  const { t } = useTranslation()
  const [email, setEmail] = useState('')
  const [role, setRole] = useState<StaffRole>('teacher')
  const [made, setMade] = useState<InviteLink | null>(null)
  const [problem, setProblem] = useState<Code | null>(null)
  async function make() {
    setProblem(null)
    try {
      setMade(await call<InviteLink>('POST', '/staff/invitations', { email, role } satisfies Invite))
    } catch (error) {
      setProblem(codeOf(error))
    }
  }
  return (
    <Dialog
      open
      onOpenChange={onClose}
      title={t('staff.invite')}
      text={made ? t('staff.linkText') : t('staff.inviteText')}
    >
      {made ? (
        <LinkToCopy link={made} />
      ) : (
        <form
          className="flex flex-col gap-4"
          noValidate
          onSubmit={(e) => {
            e.preventDefault()
            void make()
          }}
        >
          <Field
            label={t('staff.email')}
            type="email"
            autoComplete="off"
            value={email}
            onChange={(e) => setEmail(e.target.value)}
            help={t('staff.emailHelp')}
            problem={problem && t(`refusal.${problem}`)}
          />
          <fieldset className="flex flex-col gap-1.5">
            <legend className="mb-1 font-semibold">{t('staff.role')}</legend>
            {(['teacher', 'administrator'] as const).map((r) => (
              <label key={r} className="flex items-center gap-2.5">
                <input
                  type="radio"
                  name="role"
                  checked={role === r}
                  onChange={() => setRole(r)}
                  className="size-4 accent-dusk"
                />
                {t(`staff.${r}`)}
              </label>
            ))}
          </fieldset>
          <Button type="submit" look="main" size="large">
            {t('staff.makeLink')}
          </Button>
        </form>
      )}
    </Dialog>
  )
}

function LinkToCopy({ link }: { link: InviteLink }) {
  const { t } = useTranslation()
  const [copied, setCopied] = useState(false)
  return (
    <>
      <div className="flex gap-2">
        <input
          readOnly
          aria-label={t('staff.link')}
          value={link.link}
          onFocus={(e) => e.target.select()}
          className="min-w-0 grow rounded-lg border border-edge bg-snow px-3 py-2"
        />
        <Button look="main" onClick={() => void navigator.clipboard.writeText(link.link).then(() => setCopied(true))}>
          {t(copied ? 'boards.copied' : 'boards.copyLink')}
        </Button>
      </div>
      <p className="mt-2 text-slate">{t('staff.goodUntil', { when: when(link.expires) })}</p>
    </>
  )
}
