package inventory

import (
	"context"
	"errors"
	"strings"
	"unicode/utf8"

	"frugalheron/app/action"
	"frugalheron/app/library"
	"frugalheron/store/inventory"
)

// Found is what a search over everything finds, the nearest first; each kind only so many.
type Found struct {
	Exact      *Machine             `json:"exact" doc:"The machine whose accession number was given, or null"`
	Machines   []ListedMachine      `json:"machines"`
	Total      int                  `json:"total" doc:"All machines that have the words"`
	Assemblies []FoundAssembly      `json:"assemblies"`
	Chips      []library.Occurrence `json:"chips" doc:"Lines of sheets with the words in the marking, or of the type"`
}

// Limits of what is found at once, and the least length of words that chips are looked for by.
const (
	fewFound     = 5
	leastMarking = 3
)

// Find looks for words in machines, assemblies and chips.
func (s *Service) Find(ctx context.Context, actor action.Actor, text string) (Found, error) {
	found := Found{Machines: []ListedMachine{}, Assemblies: []FoundAssembly{}, Chips: []library.Occurrence{}}
	if err := actor.Must(action.MayLook); err != nil {
		return found, err
	}
	words := strings.Fields(text)
	if len(words) == 0 {
		return found, nil
	}
	exact, err := inventory.MachineByAccession(ctx, s.kernel.Reader(ctx), strings.Join(words, " "))
	if err == nil {
		view := MachineOf(exact)
		found.Exact = &view
	} else if !errors.Is(err, action.ErrNotFound) {
		return found, err
	}
	page, err := s.ListMachines(ctx, actor, MachineList{MachineFilters: MachineFilters{Search: text}, Limit: fewFound})
	if err != nil {
		return found, err
	}
	found.Machines, found.Total = page.Machines, page.Total
	assemblies, err := inventory.FindAssemblies(ctx, s.kernel.Reader(ctx), words, actor.Hides(), fewFound)
	if err != nil {
		return found, err
	}
	found.Assemblies = action.Views(assemblies, foundAssemblyOf)
	for _, word := range words {
		if utf8.RuneCountInString(word) < leastMarking {
			return found, nil
		}
	}
	chips, err := inventory.FindChips(ctx, s.kernel.Reader(ctx), words, fewFound)
	found.Chips = action.Views(chips, library.OccurrenceOf)
	return found, err
}
