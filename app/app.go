// Package app holds what users do, one deed a file: permission, load, compute with core, store
// and write history, in one transaction.
package app

import (
	"github.com/jmoiron/sqlx"
	"golang.org/x/sync/semaphore"

	"frugalheron/app/accounts"
	"frugalheron/app/action"
	"frugalheron/app/inventory"
	"frugalheron/app/library"
	"frugalheron/app/people"
	"frugalheron/app/picture"
	"frugalheron/store"
	"frugalheron/store/blobs"
)

// App does the deeds. It keeps nothing beside the database but what it has read of the library
// and of private persons, and how images differ, which never changes.
type App struct {
	Kernel    *action.Kernel
	Library   *library.Service
	Inventory *inventory.Service
	People    *people.Service
	compared  comparisons
	blobs     *blobs.Store        // nil when none is set up
	memory    *semaphore.Weighted // what decoding pictures may take, in bytes
	Accounts  *accounts.Service
	reader    string // address of the reader of chips; empty when none is set up
	meter     string // address of the meter; empty when none is set up
}

// New returns an App on a migrated database.
func New(db *sqlx.DB) *App {
	kernel := action.NewKernel(db)
	a := &App{Kernel: kernel, memory: semaphore.NewWeighted(picture.MostMemory)}
	a.People = people.New(kernel)
	a.Library = library.New(kernel, a.People)
	a.Inventory = inventory.New(kernel, a.People, a.Library)
	a.Accounts = accounts.New(kernel)
	a.follow()
	a.canUndo()
	return a
}

// follow registers what follows from records.
func (a *App) follow() {
	a.Kernel.Follow(store.ProjectedEntries, a.renewEntries)
	a.Kernel.Follow(store.ProjectedAssemblyIdentifiers, action.Each(renewAssemblyIdentifiers))
	a.Kernel.Follow(store.ProjectedLotIdentifiers, action.Each(renewLotIdentifiers))
	a.Kernel.Follow(store.ProjectedMachineEvidence, action.Each(renewEvidence))
	a.Kernel.Follow(store.ProjectedMachineAgeing, action.Each(renewAgeing))
}
