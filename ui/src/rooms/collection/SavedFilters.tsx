import { useState } from 'react'
import { Link } from 'react-router'
import styled from 'styled-components'

import { useLiked } from '../../data/useLiked'
import { Button, Buttons } from '../../kit/Button'
import { Field } from '../../kit/Field'
import { FormPanel } from '../../kit/Field'
import { space } from '../../theme'

type Saved = { name: string; filter: string }

const isSaved = (value: unknown): value is Saved[] => Array.isArray(value)
  && value.every((one: unknown) => typeof one === 'object' && one !== null && 'name' in one && 'filter' in one)

/** Filters that somebody comes back to, by name; each is an address, which can be sent to others. */
export function SavedFilters({ list, page, filter }: { list: string; page: string; filter: string }) {
  const [saved, save] = useLiked<Saved[]>(`filters of ${list}`, [], isSaved)
  const [naming, setNaming] = useState(false)
  const [name, setName] = useState('')
  const others = saved.filter((one) => one.name !== name.trim())
  const isKnown = saved.some((one) => one.filter === filter)
  if (saved.length === 0 && !filter) return null
  return (
    <Row aria-label="Saved filters">
      {saved.map((one) => (
        <span key={one.name}>
          <Link to={`${page}?${one.filter}`} aria-current={one.filter === filter || undefined}>{one.name}</Link>
          {one.filter === filter && <Button $tone="quiet" $small aria-label={`Forget the filter ${one.name}`}
            onPress={() => { save(saved.filter(({ name: other }) => other !== one.name)) }}>forget</Button>}
        </span>
      ))}
      {filter && !isKnown && !naming
        && <Button $tone="quiet" $small onPress={() => { setNaming(true) }}>Save this filter</Button>}
      {naming && (
        <FormPanel onSubmit={(event) => {
          event.preventDefault()
          if (!name.trim()) return
          save([...others, { name: name.trim(), filter }])
          setNaming(false)
          setName('')
        }}>
          <Field label="Name of the filter" value={name} onChange={setName} autoFocus isRequired maxLength={60} />
          <Buttons><Button type="submit" $tone="main">Save</Button>
            <Button onPress={() => { setNaming(false) }}>Cancel</Button></Buttons>
        </FormPanel>
      )}
    </Row>
  )
}

const Row = styled.nav`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px ${space(2)};
  [aria-current] { font-weight: 600; }
`
