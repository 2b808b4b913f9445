import { useQuery } from '@tanstack/react-query'
import { type FormEvent, useRef, useState } from 'react'
import { Autocomplete, Header, Input, ListBox, ListBoxItem, ListBoxSection, SearchField } from 'react-aria-components'
import { useMatch, useNavigate } from 'react-router'
import styled from 'styled-components'

import { useMeasure } from '../api/judge'
import { messageOf } from '../api/problem'
import { findQuery, understoodQuery, useSay } from '../api/quickEntry'
import { useAccount } from '../api/session'
import { color, font, radius, space, target } from '../theme'
import { type Offer, offers } from './offers'

/** One line for everything: finds machines, boards and chips, and takes statements for the machine on the bench. */
export function QuickEntry({ inputRef }: { inputRef: React.RefObject<HTMLInputElement | null> }) {
  const navigate = useNavigate()
  const mayWrite = useAccount()?.mayWriteSheets ?? false
  const machineId = Number(useMatch('/bench/:machineId/*')?.params.machineId) || 0
  const [text, setText] = useState('')
  const [isOpen, setOpen] = useState(false)
  const box = useRef<HTMLFormElement>(null)
  const words = text.trim()
  const found = useQuery(findQuery(words))
  const understood = useQuery({ ...understoodQuery(machineId, words), enabled: mayWrite && words !== '' })
  const say = useSay()
  const measure = useMeasure(understood.data?.machine?.id ?? 0)
  const groups = words && found.data && !(mayWrite && understood.isPending) ? offers(words, found.data,
    understood.data) : []

  const done = () => {
    setText('')
    setOpen(false)
    inputRef.current?.blur()
  }
  // What is on its way is no longer waited for: its answer would take what is typed now off the line.
  const type = (value: string) => {
    setText(value)
    setOpen(true)
    say.reset()
    measure.reset()
  }
  const take = (offer: Offer) => {
    if ('to' in offer) {
      void navigate(offer.to)
      done()
    } else if ('line' in offer) {
      measure.mutate({ line: offer.line }, { onSuccess: done })
    } else {
      const { machineId: of, assemblyId, base } = offer
      say.mutate({ machineId: of, text: offer.said ?? words, assemblyId, base, done: offer.done }, { onSuccess: done })
    }
  }
  const submit = (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault()
    void navigate(`/collection?${new URLSearchParams({ search: words }).toString()}`)
    done()
  }
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
        {isOpen && groups.length > 0 && (
          <Offers>
            <ListBox aria-label="What this can mean" selectionMode="none">
              {groups.map(({ title, items }) => (
                <ListBoxSection key={title}>
                  <Title>{title}</Title>
                  {items.map((offer) => (
                    <Item key={offer.key} id={offer.key} textValue={offer.text} isDisabled={'blocked' in offer}
                      onAction={() => { take(offer) }}>
                      <Text $mono={"machineId" in offer}>{offer.text}</Text>
                      {offer.more && <More>{offer.more}</More>}
                    </Item>
                  ))}
                </ListBoxSection>
              ))}
            </ListBox>
            {(say.error ?? measure.error)
              && <Wrong role="alert">Not saved: {messageOf(say.error ?? measure.error)}</Wrong>}
          </Offers>
        )}
      </Autocomplete>
    </Say>
  )
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
const Offers = styled.div`
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
