import type { ReactNode } from 'react'
import { FieldError, Form, Input, Label, Text, TextArea, TextField, type TextFieldProps } from 'react-aria-components'
import styled from 'styled-components'

import { color, font, radius, space, target } from '../theme'
import { useRemembered } from './formMemory'

type FieldProps = TextFieldProps & {
  label: string
  hint?: string
  placeholder?: string
  rows?: number
  mono?: boolean
  list?: string
}

/** A labelled text field with a hint below, and with its error in place of the hint. */
export function Field({ label, hint, placeholder, rows, mono, list, ...props }: FieldProps) {
  // A password is kept nowhere.
  const remembered = useRemembered(props.type === 'password' ? undefined : props.name ?? label, props)
  return (
    <Wrap {...props} {...remembered}>
      <Label>{label}</Label>
      {rows ? (
        <Area rows={rows} placeholder={placeholder} $mono={mono} spellCheck={false} />
      ) : (
        <Line placeholder={placeholder} $mono={mono} list={list} />
      )}
      {hint && <Hint slot="description">{hint}</Hint>}
      <Wrong />
    </Wrap>
  )
}

const Wrap = styled(TextField)`
  display: flex;
  flex-direction: column;
  gap: 2px;
  min-width: 0;
`

export const control = `
  width: 100%;
  min-height: ${target.main};
  padding: 4px ${space(1)};
  border: 1px solid ${color.edge};
  border-radius: ${radius};
  background: ${color.sheet};
  color: ${color.ink};
  &[data-invalid] { border-color: ${color.rust}; }
`

const Line = styled(Input)<{ $mono?: boolean }>`
  ${control}
  font-family: ${({ $mono }) => ($mono ? font.mono : font.body)};
`
const Area = styled(TextArea)<{ $mono?: boolean }>`
  ${control}
  font-family: ${({ $mono }) => ($mono ? font.mono : font.body)};
  resize: vertical;
`
const Hint = styled(Text)`
  color: ${color.faint};
  font-size: 14px;
`
const Wrong = styled(FieldError)`
  color: ${color.rust};
  font-size: 14px;
`

/** A choice from a few words, as the system draws it. */
export function Choice<Value extends string>(given: {
  label: ReactNode
  value: Value
  options: { value: Value; text: string }[]
  onChange: (value: Value) => void
  name?: string
}) {
  const props = { ...given,
    ...useRemembered(given.name ?? (typeof given.label === 'string' ? given.label : undefined), given) }
  return (
    <ChoiceWrap>
      {props.label}
      <Drop name={props.name} value={props.value} onChange={(event) => { props.onChange(event.target.value as Value) }}>
        {props.options.map(({ value, text }) => (
          <option key={value} value={value}>{text}</option>
        ))}
      </Drop>
    </ChoiceWrap>
  )
}

const ChoiceWrap = styled.label`
  display: flex;
  flex-direction: column;
  gap: 2px;
`
const Drop = styled.select`${control}`

/** Something that is so, or not. */
export function Tick({ label, isOn, onChange }: { label: ReactNode; isOn: boolean;
  onChange: (isOn: boolean) => void }) {
  const remembered = useRemembered(typeof label === 'string' ? label : undefined, { value: isOn, onChange })
  return (
    <TickLabel>
      <input type="checkbox" checked={isOn} onChange={(event) => { remembered.onChange(event.target.checked) }} />
      {' '}{label}
    </TickLabel>
  )
}

const TickLabel = styled.label`
  display: flex;
  align-items: center;
  gap: ${space(1)};
  min-height: ${target.small};
  cursor: pointer;
`

/** A form as a panel of the sheet it stands on. */
export const FormPanel = styled(Form)`
  display: flex;
  flex-direction: column;
  gap: ${space(2)};
  padding: ${space(2)};
  border: 1px solid ${color.line};
  background: ${color.sheet};
`

/** Fields beside each other where there is room. */
export const FieldGrid = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(100%, 180px), 1fr));
  gap: ${space(2)};
  align-items: start;
`
