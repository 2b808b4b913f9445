package app

import "frugalheron/store"

func checkAssembly(a *store.AssemblyFields) error {
	err := checkAll(
		headingText("title", &a.Title), headingText("part", &a.Part), headingText("rev", &a.Rev),
		headingText("serial", &a.Serial), headingText("slot", &a.Slot),
	)
	if err == nil && a.Title == "" {
		return &Invalid{"title", "give the board a name, as Main board"}
	}
	if a.Fit == "" {
		a.Fit = "unknown"
	}
	switch a.Kind {
	case "":
		a.Kind = "board"
	case store.OutsideKind:
		return &Invalid{"kind", "a machine has its outside already; choose another kind"}
	}
	return err
}
