package custody

// Whereabouts are where a machine or an assembly is: lent, on its way, at a place, or in a machine.
type Whereabouts struct {
	LentTo    string // who has it on loan
	BoundFor  string // where it is going
	Place     string
	Accession string // number of the machine that it is in
	Slot      string // of that machine
}

// InWords says it, as "EH-0142, slot 3". Whoever has a thing tells more than where it belongs.
func (w Whereabouts) InWords() string {
	switch {
	case w.LentTo != "":
		return "lent to " + w.LentTo
	case w.BoundFor != "":
		return "on its way to " + w.BoundFor
	case w.Place != "":
		return w.Place
	case w.Accession != "" && w.Slot != "":
		return w.Accession + ", slot " + w.Slot
	case w.Accession != "":
		return w.Accession
	}
	return "nowhere that is written down"
}
