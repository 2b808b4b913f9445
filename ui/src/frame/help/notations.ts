import { example, exteriorExample } from '../../kit/examples'
import { signsExample } from '../../features/signs/notation'

/** A way of writing things down: an example, and what its signs mean. */
export type Notation = { name: string; example: string; signs: [sign: string, means: string][] }

export const notations: Notation[] = [
  { name: 'Sheet of a board', example, signs: [
    ['U40-U48', 'a run of parts'], ['U20,U22', 'a list'], ['8x', 'parts without designators'],
    ['?', 'nobody identified it; inside a word, a character that is doubtful'],
    ['@socket @solder @empty', 'how it is mounted; @empty is a socket without its part'],
    ['for:picture', 'what memory is for: main, picture, cache, shared, card, parity'],
    ['!leaking: green crust', 'a finding, and a note on it'], ['new:2021', 'put in then, as a replacement'],
    ['== Title | part 4410-2 | rev C', 'opens a board, where several are pasted together'], ['#', 'a comment'],
  ] },
  { name: 'Sheet of an exterior', example: exteriorExample, signs: [
    ['== front', 'opens a side: front, left, rear, right, top, underside'],
    ['badge, label, plate, port ...', 'what it is, as the first word of the line'], ['"..."', 'verbatim from the thing'],
    ['use: plotter', 'what a port was for'], ['nothing', 'the side was seen, and there is nothing'],
  ] },
  { name: 'Measurement', example: '+5 4.93\nBT1 2.1 V\nC12 41 uF = 47 uF +/- 20 %\nC12 ESR 0.8 ohm < 1', signs: [
    ['+5 4.93', 'a rail and what was read there, against its usual limits'],
    ['= 47 uF +/- 20 %', 'what it should be, and how far from it it may be'], ['< 1', 'a limit that it must stay below'],
  ] },
  { name: 'Signs and codes', example: signsExample, signs: [
    ['row', 'names of the lamps, from the left'], ['0 1 * ?', 'dark, lit, blinking, any'],
    ['beeps 1 long 2 short', 'also as groups, 1-3-2'], ['expect', 'what a sound machine shows'],
  ] },
  { name: 'Dates', example: '1986\n1986-03\n1986/1989\n198X\n1986?\n..1990', signs: [
    ['1986-03', 'year, month, day, as far as they are known'], ['1986/1989', 'some time between'],
    ['198X', 'in the eighties'], ['?', 'not certain'], ['~', 'about'], ['..1990', 'not later than'],
  ] },
  { name: 'Say or find', example: 'U14 27128-25 8533\nnote hinge cracked\nBT1 removed\nadd a board\n41256', signs: [
    ['a line of a sheet', 'goes to the board of the machine in hand that has the part'],
    ['note', 'what follows is noted for the machine in hand'], ['add a board', 'a deed or a place, by its name'],
    ['41256', 'machines, boards and chips that have the words'],
  ] },
]
