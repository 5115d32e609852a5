import { useQuery, useQueryClient } from '@tanstack/react-query'
import { MoreVertical, ShieldCheck } from 'lucide-react'
import { DropdownMenu } from 'radix-ui'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Button } from '../kit/Button'
import { Confirm } from '../kit/windows/Confirm'
import { Dialog } from '../kit/windows/Dialog'
import { Field } from '../kit/fields/Field'
import { PickOne } from '../kit/windows/PickOne'
import { Refusal } from '../kit/Refusal'
import { ToSignIn } from '../kit/ToSignIn'
import { call, codeOf } from '../wire/http'
import type {
  AccountReceipt,
  Code,
  HandOver,
  Invite,
  InvitedItem,
  InviteLink,
  SetStanding,
  Staff as Reply,
  StaffPerson,
  StaffRole,
} from '../wire/types.gen'
import { useAct } from '../wire/hooks/useAct'
import { when } from '../words/words'
import { Rooms } from './Rooms'

/** The people of the staff, for administrators: invite, change roles, let leave and come back. */
export function Staff() {
  const { t } = useTranslation()
  const list = useQuery({ queryKey: ['staff'], queryFn: () => call<Reply>('GET', '/staff') })
  const { act, problem } = useAct('staff')
  const [inviting, setInviting] = useState(false)
  const [link, setLink] = useState<{ name: string; link: InviteLink } | null>(null)
  const [giving, give] = useState<StaffPerson | null>(null)
  const [erasing, erase] = useState<StaffPerson | null>(null)
  const [erased, setErased] = useState<AccountReceipt | null>(null)
  const [search, setSearch] = useState('')
  const code = problem ?? (list.isError ? codeOf(list.error) : null)
  if (code === 'sign-in-needed') return <ToSignIn />
  const at = (person: StaffPerson) => `/staff/people/${person.id}`
  const does: Does = {
    set: (person, to) => void act(() => call('POST', at(person), to)),
    password: (person) =>
      void act(async () =>
        setLink({ name: person.name, link: await call<InviteLink>('POST', `${at(person)}/password`, {}) }),
      ),
    takeSecond: (person) => void act(() => call('DELETE', `${at(person)}/second`)),
    give,
    erase,
  }
  const words = search.trim().toLocaleLowerCase()
  const people = list.data?.people ?? []
  const found = people.filter((p) => `${p.name} ${p.email}`.toLocaleLowerCase().includes(words))
  return (
    <Rooms
      room="staff"
      action={
        <Button look="main" onClick={() => setInviting(true)}>
          {t('staff.invite')}
        </Button>
      }
    >
      <p className="text-slate">{t('staff.text')}</p>
      {list.isPending && <p role="status">{t('loading')}</p>}
      <Refusal code={code} />
      {list.data && list.data.invitations.length > 0 && (
        <Invitations
          all={list.data.invitations}
          onWithdraw={(id) => void act(() => call('DELETE', `/staff/invitations/${id}`))}
        />
      )}
      {people.length > SEARCHED && (
        <input
          type="search"
          aria-label={t('staff.search')}
          placeholder={t('staff.search')}
          className="rounded-lg border border-edge bg-paper px-3 py-2"
          value={search}
          onChange={(e) => setSearch(e.target.value)}
        />
      )}
      {list.data && (
        <ul className="divide-y divide-line rounded-xl border border-line bg-paper">
          {found.map((person) => (
            <li key={person.id} className="flex items-center gap-3 px-4 py-3">
              <span className="min-w-0 grow">
                <span className={`block truncate font-semibold ${person.left ? 'text-slate' : ''}`}>
                  <bdi>{person.name}</bdi>{' '}
                  {person.me && <span className="font-normal text-slate">{t('staff.you')}</span>}
                </span>
                <span className="block truncate text-slate">{person.email}</span>
              </span>
              {person.second && <ShieldCheck size={18} className="shrink-0 text-fern" aria-label={t('staff.second')} />}
              <span className="rounded-md bg-mist px-2 py-0.5 text-sm text-slate">
                {t(person.left ? 'staff.left' : `staff.${person.role}`)}
              </span>
              <More person={person} does={does} />
            </li>
          ))}
        </ul>
      )}
      {inviting && <InviteDialog onClose={() => setInviting(false)} />}
      {giving && (
        <PickOne
          title={t('staff.giveTitle', giving)}
          text={t('staff.giveText')}
          label={t('together.colleague')}
          yes={t('staff.giveYes')}
          options={people.filter((p) => !p.left)}
          onClose={() => give(null)}
          onPick={async (to) => {
            await call('POST', `${at(giving)}/hand-over`, { to } satisfies HandOver)
            give(null)
          }}
        />
      )}
      <Confirm
        open={erasing !== null}
        onOpenChange={() => erase(null)}
        title={t('staff.eraseTitle', erasing ?? undefined)}
        text={t('staff.eraseText')}
        yes={t('rights.eraseYes')}
        onYes={async () => {
          setErased(await call<AccountReceipt>('DELETE', at(erasing!)))
          erase(null)
          await list.refetch()
        }}
      />
      {erased && (
        <Dialog open onOpenChange={() => setErased(null)} title={t('staff.erased')} text={when(erased.at)}>
          <p>{t('staff.erasedText', { ...erased })}</p>
        </Dialog>
      )}
      {link && (
        <Dialog
          open
          onOpenChange={() => setLink(null)}
          title={t('staff.passwordFor', link)}
          text={t(link.link.mailed ? 'staff.mailedPassword' : 'staff.passwordText', { to: link.link.mailed })}
        >
          <LinkToCopy link={link.link} />
        </Dialog>
      )}
    </Rooms>
  )
}

/** From how many people on they can be searched. */
const SEARCHED = 8

/** What an administrator may do about somebody. */
type Does = {
  set: (person: StaffPerson, to: SetStanding) => void
  password: (person: StaffPerson) => void
  takeSecond: (person: StaffPerson) => void
  give: (person: StaffPerson) => void
  erase: (person: StaffPerson) => void
}

function More({ person, does }: { person: StaffPerson; does: Does }) {
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
            <DropdownMenu.Item className={item} onSelect={() => does.set(person, { role: other })}>
              {t(`staff.make_${other}`)}
            </DropdownMenu.Item>
            <DropdownMenu.Item className={item} onSelect={() => does.password(person)}>
              {t('staff.password')}
            </DropdownMenu.Item>
            {person.second && (
              <DropdownMenu.Item className={item} onSelect={() => does.takeSecond(person)}>
                {t('staff.takeSecond')}
              </DropdownMenu.Item>
            )}
          </>
        )}
        {person.left && (
          <>
            <DropdownMenu.Item className={item} onSelect={() => does.give(person)}>
              {t('staff.give')}
            </DropdownMenu.Item>
            <DropdownMenu.Item className={`${item} text-rose`} onSelect={() => does.erase(person)}>
              {t('staff.erase')}
            </DropdownMenu.Item>
          </>
        )}
        <DropdownMenu.Item className={item} onSelect={() => does.set(person, { left: !person.left })}>
          {t(person.left ? 'staff.comeBack' : 'staff.leave')}
        </DropdownMenu.Item>
      </DropdownMenu.Content>
    </DropdownMenu.Root>
  )
}

/** Invitations that are still good, with what has become of their mail. */
function Invitations({ all, onWithdraw }: { all: InvitedItem[]; onWithdraw: (id: string) => void }) {
  const { t } = useTranslation()
  const mail = (i: InvitedItem) => {
    if (!i.mailed) return t('staff.byLink')
    if (i.sent) return t('staff.sent')
    if (i.problem) return t(i.again ? 'staff.notYetSent' : 'staff.neverSent', { why: i.problem })
    return t('staff.sending')
  }
  return (
    <section aria-labelledby="invited">
      <h2 id="invited" className="mb-2 text-xl">
        {t('staff.invited')}
      </h2>
      <ul className="divide-y divide-line rounded-xl border border-line bg-paper">
        {all.map((i) => (
          <li key={i.id} className="flex flex-wrap items-center gap-3 px-4 py-2">
            <span className="min-w-0 grow">
              <span className="block truncate font-semibold">{i.email || t('staff.whoever')}</span>
              <span className={`block ${i.problem ? 'text-rose' : 'text-slate'}`}>
                {t(`staff.${i.role}`)} · {mail(i)} · {t('staff.goodUntil', { when: when(i.expires) })}
              </span>
            </span>
            <Button
              aria-label={t('staff.withdrawOf', { email: i.email || t('staff.whoever') })}
              onClick={() => onWithdraw(i.id)}
            >
              {t('staff.withdraw')}
            </Button>
          </li>
        ))}
      </ul>
    </section>
  )
}

/** Makes a link to an account, to be handed on. */
function InviteDialog({ onClose }: { onClose: () => void }) {
  const { t } = useTranslation()
  const queries = useQueryClient()
  const [email, setEmail] = useState('')
  const [role, setRole] = useState<StaffRole>('teacher')
  const [made, setMade] = useState<InviteLink | null>(null)
  const [problem, setProblem] = useState<Code | null>(null)
  async function make() {
    setProblem(null)
    try {
      setMade(await call<InviteLink>('POST', '/staff/invitations', { email, role } satisfies Invite))
      await queries.invalidateQueries({ queryKey: ['staff'] })
    } catch (error) {
      setProblem(codeOf(error))
    }
  }
  return (
    <Dialog
      open
      onOpenChange={onClose}
      title={t('staff.invite')}
      text={t(made?.mailed ? 'staff.mailedText' : made ? 'staff.linkText' : 'staff.inviteText', { to: made?.mailed })}
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
