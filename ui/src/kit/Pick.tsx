import { Button, ComboBox, type ComboBoxProps, FieldError, Input, Label, ListBox, ListBoxItem,
  Popover } from 'react-aria-components'
import { useEffect, useState } from 'react'
import styled from 'styled-components'

import { color, radius, space, target } from '../theme'
import { control } from './Field'
import { useMemory } from './formMemory'

export type Pickable = { id: number; text: string }

type Props = {
  label: string
  name: string
  placeholder?: string
  items: Pickable[]
  search: string
  onSearch: (words: string) => void
  onPick: (id: number | null) => void
  autoFocus?: boolean
  /** Words that are none of the records are kept as they are typed. */
  free?: boolean
}

/** Picks one of many records: type words, choose from what is found. */
export function Pick({ label, name, placeholder, items, search, onSearch, onPick, autoFocus, free }: Props) {
  const kept = useMemory(name)
  const before = kept.start as { text: string; id: number | null } | undefined
  const [first] = useState(() => kept.original(search) as string)
  const [text, setText] = useState(before?.text ?? first)
  const [picked, setPicked] = useState<number | null>(before?.id ?? null)
  useEffect(() => {
    if (before) {
      onSearch(before.text)
      onPick(before.id)
    } else if (first !== search) { // it begins anew
      onSearch(first)
      if (first === '') onPick(null)
    }
  // As it was when the form was opened.
  // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [])
  const box: ComboBoxProps<Pickable> = {
    name, items, inputValue: text, autoFocus,
    onInputChange: (now) => {
      setText(now)
      kept.keep({ text: now, id: items.find((item) => item.text === now)?.id ?? picked })
      // What was picked is not searched for: the words that found it may be others than those that it is told by.
      if (!items.some((item) => item.text === now)) onSearch(now)
    },
    onSelectionChange: (key) => {
      const id = key === null ? null : Number(key)
      setPicked(id)
      onPick(id)
      kept.keep({ text: items.find((item) => item.id === id)?.text ?? text, id })
    },
    // The server filters; what it found is all shown.
    defaultFilter: () => true, allowsEmptyCollection: true, menuTrigger: 'input', allowsCustomValue: free,
  }
  return (
    <Box {...box}>
      <Label>{label}</Label>
      <Line>
        <Words placeholder={placeholder} />
        <Open aria-label="Show what there is">▾</Open>
      </Line>
      <Wrong />
      <List>
        <ListBox renderEmptyState={() => 'Nothing found.'}>
          {(item: Pickable) => <Item id={item.id} textValue={item.text}>{item.text}</Item>}
        </ListBox>
      </List>
    </Box>
  )
}

const Box = styled(ComboBox<Pickable>)`
  display: flex;
  flex-direction: column;
  gap: 2px;
  min-width: 0;
`
const Line = styled.div`
  display: flex;
`
const Words = styled(Input)`
  ${control}
  border-right: none;
`
const Open = styled(Button)`
  width: 40px;
  border: 1px solid ${color.edge};
  border-radius: 0 ${radius} ${radius} 0;
  background: ${color.sheet};
  color: ${color.slate};
  cursor: pointer;
`
const Wrong = styled(FieldError)`
  color: ${color.rust};
  font-size: 14px;
`
const List = styled(Popover)`
  width: var(--trigger-width);
  max-height: 280px;
  overflow: auto;
  padding: 4px 0;
  border: 1px solid ${color.line};
  background: ${color.sheet};
  box-shadow: 0 2px 8px rgb(20 25 28 / 20%);
  [role='listbox'] { outline: none; padding: 0 ${space(1)}; }
`
const Item = styled(ListBoxItem)`
  min-height: ${target.main};
  padding: 8px ${space(1)};
  cursor: pointer;
  outline: none;
  overflow-wrap: anywhere;
  &[data-focused] { background: ${color.slateGround}; color: ${color.slate}; }
`
