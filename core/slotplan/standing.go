package slotplan

// Standing is what is in the slots as it stands.
type Standing struct {
	In      map[string][]string // cards by slot: that sit in it or cover it
	Fillers []string            // slots that need one
}

// Stand tells it. An input that cannot be is refused by its place.
func Stand(in Input) (Standing, error) {
	b, err := newBackplane(in)
	if err != nil {
		return Standing{}, err
	}
	s := Standing{In: map[string][]string{}, Fillers: b.fillers(b.at)}
	for i, slot := range b.at {
		if slot < 0 {
			continue
		}
		covered := b.covered[i][slot]
		if covered == nil { // it is wider than its row
			covered = []int{slot}
		}
		for _, n := range covered {
			id := b.slots[n].ID
			s.In[id] = append(s.In[id], in.Cards[i].ID)
		}
	}
	return s, nil
}

// Problems tells what is wrong as it stands, without looking for a better way. An input that cannot be is refused by its
// place.
func Problems(in Input) ([]Problem, error) {
	b, err := newBackplane(in)
	if err != nil {
		return nil, err
	}
	return b.problems(), nil
}
