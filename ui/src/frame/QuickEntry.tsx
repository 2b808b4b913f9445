import { useQuery } from '@tanstack/react-query'
import { type FormEvent, useEffect, useEffectEvent, useRef, useState } from 'react'
import { Autocomplete, Header, Input, ListBox, ListBoxItem, ListBoxSection, SearchField } from 'react-aria-components'
import { useMatch, useNavigate } from 'react-router'
import styled from 'styled-components'

import { useMeasure } from '../api/judge'
import { libraryQuery } from '../api/library'
import { machineQuery } from '../api/machines'
import { messageOf } from '../api/problem'
import { type Found, findQuery, inStoresQuery, understoodQuery, useSay } from '../api/quickEntry'
import { useAccount } from '../api/session'
import { useIsConnected } from '../data/connection'
import { usedLast, noteUsed } from '../data/usedLast'
import { lastOnBench } from '../kit/lastOnBench'
import { MachineThumb } from '../features/pictures/MachineThumb'
import { useSettled } from '../kit/useSettled'
import { color, font, radius, space, target } from '../theme'
import { deedsFor } from './deeds'
import { type Offer, type Offers, offers } from './offers'

/** A pause in typing of this many milliseconds lets the answers follow. */
const pause = 90
const nothing: Found = { exact: null, machines: [], total: 0, assemblies: [], chips: [] }
/** Of types whose number starts with the words, so many are offered. */
const mostTypes = 3

/** One line for everything: finds machines, boards and chips, and takes statements for the machine on the bench. */
export function QuickEntry({ inputRef, start = '' }: { inputRef: React.RefObject<HTMLInputElement | null>
  /** What stands in it at first. */
  start?: string }) {
  const navigate = useNavigate()
  const account = useAccount()
  const mayWrite = account?.mayWriteSheets ?? false
  const machineId = Number(useMatch('/bench/:machineId/*')?.params.machineId) || 0
    const [text, setText] = useState(start)
  const [isOpen, setOpen] = useState(false)
  const inHand = useInHand(isOpen ? machineId || lastOnBench() || 0 : 0)
  const box = useRef<HTMLFormElement>(null)
  const words = text.trim()
  const [wanted, setWanted] = useState('') // words that Enter was pressed on before the answers were there
  const asked = useSettled(words, wanted === words ? 0 : pause)
  const found = useQuery(findQuery(asked))
  const understood = useQuery({ ...understoodQuery(machineId, asked), enabled: mayWrite && asked !== '' })
  const types = useQuery({ ...libraryQuery(asked), enabled: /^\S{3,30}$/.test(asked) })
  const drawers = useQuery({ ...inStoresQuery(asked), enabled: mayWrite && asked.length >= 3 })
  const say = useSay()
  const measure = useMeasure(understood.data?.machine?.id ?? 0)
  const used = usedLast()
  // Without the server it still knows what can be done, and where things are.
  const isCut = !useIsConnected() || found.isError
  const isAnswered = asked === words && (isCut || (found.data !== undefined && !(mayWrite && understood.isPending)
    && !(types.isPending && types.isFetching)))
  const deeds = isOpen ? deedsFor(words, account, inHand) : []
  const groups: Offers[] = words === ''
    ? [{ title: 'Used last', items: used }].filter(({ items }) => items.length > 0)
    : !isAnswered ? [] : isCut ? [{ title: 'Do, or go to', items: deeds }].filter(({ items }) => items.length > 0)
      : offers(words, found.data ?? nothing, understood.data,
        { deeds, types: types.data?.slice(0, mostTypes), used, drawers: drawers.data?.parts })

  const done = () => {
    setText('')
    setOpen(false)
    inputRef.current?.blur()
  }
  // What is on its way is no longer waited for: its answer would take what is typed now off the line.
  const type = (value: string) => {
    setText(value)
    setWanted('')
    setOpen(true)
    say.reset()
    measure.reset()
  }
  const take = (offer: Offer) => {
    if ('to' in offer) {
      const { key, text: called, more, to } = offer
      noteUsed({ key, text: called, more, to })
      void navigate(to)
      done()
    } else if ('line' in offer) {
      measure.mutate({ line: offer.line }, { onSuccess: done })
    } else {
      const { machineId: of, assemblyId, base } = offer
      say.mutate({ machineId: of, text: offer.said ?? words, assemblyId, base, done: offer.done }, { onSuccess: done })
    }
  }
  // Enter takes the first of what it can mean; before that is known it waits for it.
  const submit = (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault()
    if (words !== '') setWanted(words)
  }
  const first = groups[0]?.items.find((offer) => !('blocked' in offer))
  const takeWanted = useEffectEvent(() => {
    if (wanted === '' || wanted !== words) return
    setWanted('')
    if (first) take(first)
  })
  useEffect(() => {
    if (!isAnswered || wanted === '') return
    const timer = setTimeout(takeWanted, 0)
    return () => { clearTimeout(timer) }
  }, [isAnswered, wanted])
  return (
    <Say
      ref={box}
      role="search"
      onSubmit={submit}
      onFocus={() => { setOpen(true) }}
      onBlur={(event) => { if (!box.current?.contains(event.relatedTarget)) setOpen(false) }}
      onKeyDown={(event) => { if (event.key === 'Escape') { setOpen(false); inputRef.current?.blur() } }}
    >
      <Autocomplete inputValue={text} onInputChange={type}>
        <SearchField aria-label="Say or find" maxLength={2000}>
          <Line ref={inputRef} name="find" placeholder="/  say or find" />
        </SearchField>
        {isOpen && isCut && words !== '' && groups.length === 0 && (
          <OfferBox><p role="status">The server does not answer, so nothing can be looked for or said. Deeds and places are
            found by their names.</p></OfferBox>
        )}
        {isOpen && groups.length > 0 && (
          <OfferBox>
            <ListBox aria-label="What this can mean" selectionMode="none">
              {groups.map(({ title, items }) => (
                <ListBoxSection key={title}>
                  <Title>{title}</Title>
                  {items.map((offer) => (
                    <Item key={offer.key} id={offer.key} textValue={offer.text} isDisabled={'blocked' in offer}
                      onAction={() => { take(offer) }}>
                      {offer.picture ? <MachineThumb id={offer.picture} size={40} /> : null}
                      <Text $mono={"machineId" in offer}>{offer.text}</Text>
                      {offer.more && <More>{offer.more}</More>}
                    </Item>
                  ))}
                </ListBoxSection>
              ))}
            </ListBox>
            {(say.error ?? measure.error)
              && <Wrong role="alert">Not saved: {messageOf(say.error ?? measure.error)}</Wrong>}
          </OfferBox>
        )}
      </Autocomplete>
    </Say>
  )
}

/** The machine that deeds are done with: the one in hand, or the last that was. */
function useInHand(id: number) {
  const { data } = useQuery({ ...machineQuery(id), enabled: id > 0 })
  return data && { id, title: `${data.accession} ${data.name}` }
}

const Say = styled.form`
  position: relative;
  flex: 1 1 120px;
  max-width: 420px;
  margin-left: auto;
`
const Line = styled(Input)`
  width: 100%;
  min-height: ${target.small};
  padding: 0 ${space(1)};
  border: 1px solid ${color.edge};
  border-radius: ${radius};
  background: ${color.paper};
  &::placeholder { color: ${color.faint}; opacity: 1; }
  &::-webkit-search-cancel-button { display: none; }
`
const OfferBox = styled.div`
  position: absolute;
  right: 0;
  top: calc(100% + 4px);
  z-index: 8;
  width: min(560px, calc(100vw - ${space(4)}));
  max-height: 72vh;
  overflow: auto;
  padding: ${space(1)};
  border: 1px solid ${color.line};
  background: ${color.sheet};
  box-shadow: 0 2px 8px rgb(20 25 28 / 20%);
  [role='listbox'] { outline: none; }
  @media (max-width: 600px) { position: fixed; top: 96px; left: ${space(1)}; right: ${space(1)}; width: auto; }
`
const Title = styled(Header)`
  padding: ${space(1)} ${space(1)} 2px;
  color: ${color.faint};
  font-size: 13px;
  font-weight: 600;
`
const Item = styled(ListBoxItem)`
  padding: 5px ${space(1)};
  min-height: ${target.small};
  cursor: pointer;
  outline: none;
  overflow-wrap: anywhere;
  img { float: left; margin-right: ${space(1)}; }
  &[data-focused], &[data-hovered] { background: ${color.slateGround}; }
  &[data-disabled] { cursor: default; color: ${color.faint}; }
`
const Text = styled.span<{ $mono: boolean }>`
  font-family: ${({ $mono }) => ($mono ? font.mono : font.body)};
`
const More = styled.span`
  display: block;
  color: ${color.faint};
  font-size: 14px;
  line-height: 1.3;
`
const Wrong = styled.p`
  padding: ${space(1)};
  color: ${color.rust};
`
