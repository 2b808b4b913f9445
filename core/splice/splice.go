// Package splice answers: what was put in between two rows of things of which most stayed as they were? It is how an
// answer that is almost the one before is told in short.
package splice

import "slices"

// Splice turns a row into a later one: its first Head things stay, its last Tail things stay, and what was between them
// is Put in its place.
type Splice[T any] struct {
	Head int `json:"head" minimum:"0" doc:"So many stay at the start"`
	Put  []T `json:"put" doc:"What stands between them now"`
	Tail int `json:"tail" minimum:"0" doc:"So many stay at the end"`
}

// Between returns the splice that turns a row into a later one; what stays is as long as it can be.
func Between[T any](older, later []T, same func(a, b T) bool) Splice[T] {
	most := min(len(older), len(later))
	head := 0
	for head < most && same(older[head], later[head]) {
		head++
	}
	tail := 0
	for tail < most-head && same(older[len(older)-1-tail], later[len(later)-1-tail]) {
		tail++
	}
	return Splice[T]{Head: head, Put: append([]T{}, later[head:len(later)-tail]...), Tail: tail}
}

// Of returns the later row; ok is false where the older one is too short for it.
func (s Splice[T]) Of(older []T) (later []T, ok bool) {
	if s.Head < 0 || s.Tail < 0 || s.Head+s.Tail > len(older) {
		return nil, false
	}
	return slices.Concat(older[:s.Head], s.Put, older[len(older)-s.Tail:]), true
}
