// Package app holds what users do, one deed a file: permission, load, compute with core, store
// and write history, in one transaction.
package app

import (
	"errors"
	"slices"
	"time"

	"github.com/jmoiron/sqlx"
	"golang.org/x/sync/semaphore"

	"frugalheron/app/picture"
	"frugalheron/store"
	"frugalheron/store/blobs"
)

// App does the deeds. It keeps nothing beside the database but what it has read of the library
// and of private persons, and how images differ, which never changes.
type App struct {
	*Kernel
	libraries libraryCache
	private   privacyCache
	compared  comparisons
	blobs     *blobs.Store        // nil when none is set up
	memory    *semaphore.Weighted // what decoding pictures may take, in bytes
	hashes    *semaphore.Weighted // passwords that are hashed at a time
	reader    string              // address of the reader of chips; empty when none is set up
	meter     string              // address of the meter; empty when none is set up
}

// New returns an App on a migrated database.
func New(db *sqlx.DB) *App {
	a := &App{Kernel: NewKernel(db), memory: semaphore.NewWeighted(picture.MostMemory), hashes: semaphore.NewWeighted(hashesAtOnce)}
	a.follow()
	a.canUndo()
	a.AtEnd(a.noteMentions)
	return a
}

// follow registers what follows from records.
func (a *App) follow() {
	a.Follow(store.ProjectedEntries, a.renewEntries)
	a.Follow(store.ProjectedAssemblyIdentifiers, each(renewAssemblyIdentifiers))
	a.Follow(store.ProjectedLotIdentifiers, each(renewLotIdentifiers))
	a.Follow(store.ProjectedMachineSum, renewSums)
	a.Follow(store.ProjectedMachineEvidence, each(renewEvidence))
	a.Follow(store.ProjectedMachineAgeing, each(renewAgeing))
	for _, kind := range store.PublicKinds {
		a.Follow("public "+string(kind), a.renewPublic(kind))
	}
}

// Actor is who does a deed.
type Actor struct {
	AccountID int64
	Name      string
	Role      Role
}

// Role says what an account is for.
type Role string

// Roles.
const (
	Curator    Role = "curator"    // keeps the record
	Technician Role = "technician" // works on machines
	Viewer     Role = "viewer"     // looks
)

// Roles is a set of roles that a deed is open to.
type Roles []Role

// Who may do what. The interface asks the same lists.
var (
	MayLook          = Roles{Curator, Technician, Viewer}
	MayWriteSheets   = Roles{Curator, Technician}
	MayKeepTheRecord = Roles{Curator}
)

// Include reports whether a role is among them.
func (r Roles) Include(role Role) bool { return slices.Contains(r, role) }

// Errors of deeds. Stale and Invalid carry more and are types.
var (
	ErrNotFound  = store.ErrNotFound
	ErrForbidden = errors.New("your account's role does not allow this")
)

// Invalid is returned for input that cannot be taken. Field is its JSON name.
type Invalid struct {
	Field, Why string
}

// Error says which field is wrong and why.
func (e *Invalid) Error() string { return e.Field + ": " + e.Why }

// Stale is returned when somebody changed the record since the caller read it. Newer is the
// record as it is now.
type Stale struct {
	What  string
	Newer any
}

// Error says what was changed meanwhile.
func (e *Stale) Error() string {
	return e.What + " was changed by somebody else since you read it; nothing was overwritten"
}

// Busy is returned when something that only so many may do at once did not get its turn. Nothing was done.
type Busy struct{ What string }

// Error says what was waited for.
func (e *Busy) Error() string {
	return "too much is going on at once (" + e.What + "); try again in a moment"
}

// account is the actor's account; nil for the command line.
func (a Actor) account() *int64 {
	if a.AccountID == 0 {
		return nil
	}
	return &a.AccountID
}

func (a Actor) must(roles Roles) error {
	if !roles.Include(a.Role) {
		return ErrForbidden
	}
	return nil
}

// today is the day that moves are entered with unless they say another.
func today() string { return time.Now().Format(time.DateOnly) }
