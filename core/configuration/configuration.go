// Package configuration answers: how was a machine set up, what does a switch that was found mean, in what do two
// ways of setting it up differ, and what has to be done to set it up so again?
package configuration

// Card is a board or card with its settings.
type Card struct {
	ID       int64 // 0 for one that there is no record of
	Title    string
	Slot     string
	Settings []Setting
}

// File is a start-up, host or driver file as text.
type File struct {
	Name string
	Text string
}

// Snapshot is how a machine was set up at a time.
type Snapshot struct {
	Cards    []Card
	Firmware []Entry
	Media    []string
	Files    []File
}
