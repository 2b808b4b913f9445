// Package app builds what users do on one database: a service for each subject, in the order in which they use each other.
package app

import (
	"github.com/jmoiron/sqlx"

	"frugalheron/app/accounts"
	"frugalheron/app/action"
	"frugalheron/app/arrivals"
	"frugalheron/app/bench"
	"frugalheron/app/condition"
	"frugalheron/app/console"
	"frugalheron/app/dating"
	"frugalheron/app/diagnosis"
	"frugalheron/app/evidence"
	"frugalheron/app/files"
	"frugalheron/app/history"
	"frugalheron/app/inventory"
	"frugalheron/app/library"
	"frugalheron/app/packs"
	"frugalheron/app/parts"
	"frugalheron/app/people"
	"frugalheron/app/power"
	"frugalheron/app/practice"
	"frugalheron/app/quickentry"
	"frugalheron/app/roms"
	"frugalheron/app/setup"
	"frugalheron/app/sharing"
	"frugalheron/app/sheets"
	"frugalheron/app/signs"
	"frugalheron/app/teardown"
	"frugalheron/app/unknowns"
	"frugalheron/app/upkeep"
	"frugalheron/app/wanted"
	"frugalheron/app/work"
	"frugalheron/store/blobs"
)

// App is all of them. They keep nothing beside the database but what they have read of the library and of private persons,
// and how images differ, which never changes.
type App struct {
	Kernel     *action.Kernel
	People     *people.Service
	Library    *library.Service
	Inventory  *inventory.Service
	Files      *files.Service
	Sheets     *sheets.Service
	Evidence   *evidence.Service
	Signs      *signs.Service
	Unknowns   *unknowns.Service
	Arrivals   *arrivals.Service
	Roms       *roms.Service
	Dating     *dating.Service
	Condition  *condition.Service
	Sharing    *sharing.Service
	Teardown   *teardown.Service
	Power      *power.Service
	Console    *console.Service
	Diagnosis  *diagnosis.Service
	Setup      *setup.Service
	Practice   *practice.Service
	Parts      *parts.Service
	Wanted     *wanted.Service
	Work       *work.Service
	Upkeep     *upkeep.Service
	Packs      *packs.Service
	QuickEntry *quickentry.Service
	Bench      *bench.Service
	History    *history.Service
	Accounts   *accounts.Service
}

// New returns an App on a migrated database.
func New(db *sqlx.DB) *App {
	kernel := action.NewKernel(db)
	a := &App{Kernel: kernel}
	a.People = people.New(kernel)
	a.Library = library.New(kernel, a.People)
	a.Inventory = inventory.New(kernel, a.People, a.Library)
	a.Files = files.New(kernel, a.People, a.Inventory)
	a.Sheets = sheets.New(kernel, a.Library, a.Inventory)
	a.Evidence = evidence.New(kernel)
	a.Signs = signs.New(kernel, a.Inventory, a.Library)
	a.Unknowns = unknowns.New(kernel, a.Library, a.Inventory, a.Signs)
	a.Arrivals = arrivals.New(kernel, a.Evidence)
	a.Roms = roms.New(kernel, a.Library, a.Inventory)
	a.Dating = dating.New(kernel, a.Library, a.Inventory, a.Roms)
	a.Condition = condition.New(kernel, a.Inventory, a.Files, a.Library)
	a.Sharing = sharing.New(kernel, a.Inventory, a.Condition)
	a.Teardown = teardown.New(kernel, a.People, a.Library, a.Inventory, a.Dating)
	a.Power = power.New(kernel, a.Inventory, a.Condition, a.Teardown, a.Signs)
	a.Console = console.New(kernel, a.Inventory, a.Evidence)
	a.Practice = practice.New(kernel)
	a.Parts = parts.New(kernel)
	a.Wanted = wanted.New(kernel, a.Arrivals, a.Parts, a.Files)
	a.Work = work.New(kernel, a.Library, a.Sheets, a.Condition, a.Parts, a.Wanted)
	a.Accounts = accounts.New(kernel)
	a.Upkeep = upkeep.New(kernel, a.People, a.Accounts, a.Sheets, a.Condition, a.Work)
	a.Packs = packs.New(kernel, a.People, a.Inventory, a.Library, a.Teardown)
	a.QuickEntry = quickentry.New(kernel, a.Library, a.Inventory, a.Evidence, a.Condition)
	a.History = history.New(kernel, a.People, a.Inventory, a.Arrivals)
	a.Diagnosis = diagnosis.New(kernel, a.Inventory, a.History, a.Console)
	a.Setup = setup.New(kernel, a.Library, a.Inventory, a.Power, a.Parts)
	a.Bench = bench.New(kernel, bench.Subjects{
		People: a.People, Library: a.Library, Inventory: a.Inventory, Sheets: a.Sheets, Roms: a.Roms, Dating: a.Dating,
		Condition: a.Condition, Teardown: a.Teardown, Power: a.Power, Work: a.Work, Unknowns: a.Unknowns,
	}, a.Roms.Verdicts, a.Dating.Verdicts, a.Teardown.Verdicts, a.Condition.Verdicts, a.Signs.Verdicts,
		a.Console.Verdicts,
		a.Sharing.Verdicts, a.Power.Verdicts,
		a.Work.Verdicts, a.Diagnosis.Verdicts, a.Setup.Verdicts)
	return a
}

// WithBlobs keeps uploaded bytes in a store. Without one nothing can be uploaded.
func (a *App) WithBlobs(kept *blobs.Store) *App {
	a.Roms.KeepIn(kept)
	a.Files.KeepIn(kept)
	return a
}

// Instruments are where the instruments of the bench are found, as 127.0.0.1:7071; empty where there is none. Practice is the
// practice machine, which is a stand-in and can play a console.
type Instruments struct{ Reader, Meter, Console, Practice string }

// WithInstruments reads chips, measures, and hears consoles through the instruments of a bench.
func (a *App) WithInstruments(at Instruments) *App {
	a.Roms.ReadFrom(at.Reader)
	a.Condition.MeasureBy(at.Meter)
	a.Console.HearThrough(at.Console, at.Practice)
	a.Practice.On(practice.Addresses{Machine: at.Practice, Meter: at.Meter, Console: at.Console})
	return a
}
