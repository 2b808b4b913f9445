package unknowns

import (
	"cmp"
	"context"
	"slices"

	"frugalheron/app/action"
)

// UnknownCount is how many things of a sort nobody knows.
type UnknownCount struct {
	Sort  string `json:"sort" doc:"As chip, connector, card"`
	Count int    `json:"count" doc:"Each counts once, wherever it occurs"`
	More  bool   `json:"more" doc:"There are more than were counted"`
}

// Counts says how much nobody knows in the collection, by sort, the most first.
func (s *Service) Counts(ctx context.Context, actor action.Actor) ([]UnknownCount, error) {
	all, err := s.Unknowns(ctx, actor, 0)
	if err != nil {
		return nil, err
	}
	counts := []UnknownCount{}
	for _, one := range all.Open {
		at := slices.IndexFunc(counts, func(c UnknownCount) bool { return c.Sort == one.Sort })
		if at < 0 {
			at = len(counts)
			counts = append(counts, UnknownCount{Sort: one.Sort, More: all.More})
		}
		counts[at].Count++
	}
	slices.SortStableFunc(counts, func(a, b UnknownCount) int {
		return cmp.Or(b.Count-a.Count, cmp.Compare(a.Sort, b.Sort))
	})
	return counts, nil
}
