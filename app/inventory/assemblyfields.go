package inventory

import (
	"frugalheron/app/action"
	"frugalheron/app/input"
	"frugalheron/store/inventory"
)

// CheckAssembly trims what is said of an assembly, or says what is wrong with it.
func CheckAssembly(a *AssemblyInput) error {
	err := input.CheckAll(
		input.HeadingText("title", &a.Title), input.HeadingText("part", &a.Part), input.HeadingText("rev", &a.Rev),
		input.HeadingText("serial", &a.Serial), input.HeadingText("slot", &a.Slot),
	)
	if err == nil && a.Title == "" {
		return action.Reject("title", "give the board a name, as Main board")
	}
	if a.Fit == "" {
		a.Fit = "unknown"
	}
	switch a.Kind {
	case "":
		a.Kind = "board"
	case inventory.ExteriorKind:
		return action.Reject("kind", "a machine has its outside already; choose another kind")
	}
	return err
}
