import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Heading, Modal } from 'react-aria-components'
import styled from 'styled-components'

import { partiesQuery, useAddParty } from '../../../api/parties'
import { useAccount } from '../../../api/session'
import { Button } from '../../../kit/Button'
import { Overlay, OverlayPanel } from '../../../kit/Overlay'
import { Pick } from '../../../kit/Pick'
import { target } from '../../../theme'
import { PartyForm } from './PartyForm'

type Props = {
  label: string
  name: string
  /** Who is chosen to begin with. */
  start?: { id: number | null; name: string }
  onPick: (id: number | null) => void
  /** Somebody who is in no list may be written, too. */
  free?: boolean
}

/** Picks somebody from people and organisations; who is not there yet can be added on the spot. */
export function PickParty({ label, name, start, onPick, free }: Props) {
  const [search, setSearch] = useState(start?.name ?? '')
  const [chosen, setChosen] = useState(start?.name ?? '')
  const [adding, setAdding] = useState(false)
  const parties = useQuery(partiesQuery(search === chosen ? '' : search))
  const add = useAddParty()
  const mayAdd = useAccount()?.mayKeepTheRecord ?? false
  const choose = (id: number | null, text: string) => {
    setChosen(text)
    setSearch(text)
    onPick(id)
  }
  const items = (parties.data ?? []).map((party) => ({ id: party.id,
    text: party.private ? `${party.name} (private)` : party.name }))
  return (
    <Row>
      <Pick
        label={label}
        name={name}
        items={items}
        search={search}
        free={free}
        onSearch={(words) => {
          setSearch(words)
          if (words !== chosen) onPick(null)
          if (words === '') setChosen('')
        }}
        onPick={(id) => {
          const picked = items.find((item) => item.id === id)
          if (picked) choose(picked.id, picked.text)
        }}
      />
      {mayAdd && <Button $small onPress={() => { setAdding(true) }} aria-label={`Add somebody new: ${label}`}>
        New
      </Button>}
      <Overlay isOpen={adding} onOpenChange={setAdding} isDismissable>
        <Modal>
          <OverlayPanel>
            <Heading slot="title">Somebody new</Heading>
            <PartyForm
              keptAs={`new party for ${name}`}
              start={{ name: search === chosen ? '' : search }}
              error={add.error}
              isPending={add.isPending}
              action="Add to the list"
              onSubmit={(fields) => {
                add.mutate(fields, {
                  onSuccess: (party) => {
                    choose(party.id, party.name)
                    setAdding(false)
                  },
                })
              }}
              onCancel={() => { setAdding(false) }}
            />
          </OverlayPanel>
        </Modal>
      </Overlay>
    </Row>
  )
}

const Row = styled.div`
  display: flex;
  align-items: end;
  gap: 4px;
  min-width: 0;
  > :first-child { flex: 1; }
  > button { min-height: ${target.main}; }
`
