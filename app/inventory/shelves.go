package inventory

import (
	"context"
	"encoding/base64"
	"encoding/json"
	"slices"
	"strings"

	"frugalheron/app/action"
	"frugalheron/core/memory"
	"frugalheron/store/inventory"
)

// MachinePage is a page of a list.
type MachinePage struct {
	Machines []ListedMachine `json:"machines"`
	Total    int             `json:"total" doc:"Machines that the filters leave, on all pages; counted for the first page, else 0"`
	Next     string          `json:"next" doc:"Give this as after to get the next page; empty on the last"`
}

// MachineFilters narrow a list. What is empty does not narrow; of several values one has to fit.
type MachineFilters struct {
	IDs        []int64
	Search     string
	Places     []string
	Makers     []string
	Years      []int
	Stages     []string
	Statements []string
	Type       string
}

func (f MachineFilters) inStore(public bool) inventory.MachineFilter {
	return inventory.MachineFilter{
		Public: public, IDs: f.IDs,
		Words: strings.Fields(f.Search), Places: f.Places, Makers: f.Makers, Years: f.Years, Stages: f.Stages,
		Statements: f.Statements, Type: f.Type,
	}
}

// MachineList asks for a page.
type MachineList struct {
	MachineFilters
	Sort       string // one of store.MachineSorts; empty for accession
	Descending bool
	After      string // Next of the page before; empty for the first
	Limit      int
}

// ListMachines lists machines page by page.
func (s *Service) ListMachines(ctx context.Context, actor action.Actor, list MachineList) (MachinePage, error) {
	page := MachinePage{Machines: []ListedMachine{}}
	if err := actor.Must(action.MayLook); err != nil {
		return page, err
	}
	public, err := s.people.OnlyPublic(ctx, actor)
	if err != nil {
		return page, err
	}
	query := inventory.MachineQuery{MachineFilter: list.inStore(public), Sort: list.Sort, Descending: list.Descending}
	if query.Sort == "" {
		query.Sort = "accession"
	}
	sort, ok := inventory.MachineSorts[query.Sort]
	if !ok {
		return page, action.Reject("sort", "is no column of the list")
	}
	if list.After == "" {
		if page.Total, err = inventory.CountMachines(ctx, s.kernel.Reader(ctx), query.MachineFilter); err != nil {
			return page, err
		}
		if page.Total == 0 {
			return page, nil
		}
	} else {
		key, err := readKey(list.After)
		if err != nil || !sort.Takes(key.Value) {
			return page, action.Reject("after", "is not what the page before gave as next")
		}
		query.After = &key
	}
	// One more than asked for tells whether another page follows.
	query.Limit = list.Limit + 1
	found, err := inventory.ListMachines(ctx, s.kernel.Reader(ctx), query)
	if len(found) > list.Limit {
		found = found[:list.Limit]
		last := found[list.Limit-1]
		page.Next = NextOf(inventory.MachineKey{Value: last.SortedBy, ID: last.ID})
	}
	page.Machines = action.Views(found, listedMachineOf)
	return page, err
}

// NextOf writes where a page ends, to be given as after.
func NextOf(key inventory.MachineKey) string {
	encoded, _ := json.Marshal(key) // a string and a number: cannot fail
	return base64.RawURLEncoding.EncodeToString(encoded)
}

func readKey(text string) (key inventory.MachineKey, err error) {
	decoded, err := base64.RawURLEncoding.DecodeString(text)
	if err == nil {
		err = json.Unmarshal(decoded, &key)
	}
	return key, err
}

func inKB(bytes int64) string {
	if bytes == 0 {
		return ""
	}
	return memory.InKB(bytes)
}

// Facets say how many machines there are of each value that a list can be narrowed by. Each counts
// with all filters but its own.
type Facets struct {
	Places     []FacetCount `json:"places" doc:"Those with most machines first"`
	Makers     []FacetCount `json:"makers" doc:"Those with most machines first"`
	Years      []FacetCount `json:"years" doc:"In order"`
	Stages     []FacetCount `json:"stages" doc:"How far taking stock has come"`
	Statements []FacetCount `json:"statements" doc:"Whether equally strong sources differ"`
}

// CountFacets counts machines by the values that a list can be narrowed by.
func (s *Service) CountFacets(ctx context.Context, actor action.Actor, filters MachineFilters) (Facets, error) {
	f := Facets{Places: []FacetCount{}, Makers: []FacetCount{}, Years: []FacetCount{},
		Stages: []FacetCount{}, Statements: []FacetCount{}}
	if err := actor.Must(action.MayLook); err != nil {
		return f, err
	}
	public, err := s.people.OnlyPublic(ctx, actor)
	if err != nil {
		return f, err
	}
	counts, err := inventory.CountFacets(ctx, s.kernel.Reader(ctx), filters.inStore(public))
	for _, c := range counts {
		of := map[string]*[]FacetCount{"place": &f.Places, "maker": &f.Makers, "year": &f.Years,
			"stage": &f.Stages, "statement": &f.Statements}[c.Facet]
		*of = append(*of, facetCountOf(c))
	}
	slices.SortFunc(f.Years, func(a, b FacetCount) int { return strings.Compare(a.Value, b.Value) })
	return f, err
}

// typesOffered is how many types are offered to narrow a list by.
const typesOffered = 12

// CountHolding offers types whose number starts with a text, each with the number of machines that
// hold it among those that the other filters leave.
func (s *Service) CountHolding(ctx context.Context, actor action.Actor, filters MachineFilters,
	start string) ([]FacetCount, error) {
	types, err := s.library.Types(ctx, actor, start, typesOffered)
	if err != nil {
		return nil, err
	}
	numbers := make([]string, len(types))
	for i, t := range types {
		numbers[i] = t.Number
	}
	public, err := s.people.OnlyPublic(ctx, actor)
	if err != nil {
		return nil, err
	}
	rows, err := inventory.CountHolding(ctx, s.kernel.Reader(ctx), filters.inStore(public), numbers)
	return action.Views(rows, facetCountOf), err
}
