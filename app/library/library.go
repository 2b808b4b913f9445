package library

import (
	"context"
	"sync/atomic"

	"frugalheron/app/action"
	"frugalheron/core/device"
	"frugalheron/core/device/builtin"
	"frugalheron/store/library"
	"frugalheron/store/pg"
)

// libraryAfter is a library with the own types as they were after n changes.
type libraryAfter struct {
	n       int64
	library *device.Library
}

// libraryCache keeps the last library read. It is asked for by the count of changes in the
// database, so that a process never works with types that another has changed.
type libraryCache struct{ last atomic.Pointer[libraryAfter] }

// at returns the library after n changes, which must be committed ones.
func (c *libraryCache) at(ctx context.Context, h pg.Handle, n int64) (*device.Library, error) {
	if last := c.last.Load(); last != nil && last.n == n {
		return last.library, nil
	}
	library, err := loadLibrary(ctx, h)
	if err == nil {
		c.last.Store(&libraryAfter{n, library})
	}
	return library, err
}

// Read returns the built-in library with the collection's own types.
func (s *Service) Read(ctx context.Context) (*device.Library, error) {
	return action.Once(ctx, "library", 0, func() (*device.Library, error) {
		n, _, err := library.LibraryState(ctx, s.kernel.Reader(ctx))
		if err != nil {
			return nil, err
		}
		return s.libraries.at(ctx, s.kernel.Reader(ctx), n)
	})
}

// Held returns it for work whose result is kept: own types wait with changing until the
// transaction ends, so that no sheet is kept as reckoned without a type that exists. It comes
// before any lock on an assembly: whoever changes types locks in that order.
func (s *Service) Held(ctx context.Context, tx pg.Handle) (*device.Library, error) {
	n, isOwn, err := library.HoldLibrary(ctx, tx)
	if err != nil {
		return nil, err
	}
	if isOwn {
		return loadLibrary(ctx, tx) // what this transaction changed is nobody else's yet
	}
	return s.libraries.at(ctx, tx, n)
}

// Hold does so for those who do not read it themselves, before they lock an assembly: what follows from their
// changes is read by it.
func (s *Service) Hold(ctx context.Context, tx pg.Handle) error {
	_, _, err := library.HoldLibrary(ctx, tx)
	return err
}

func loadLibrary(ctx context.Context, h pg.Handle) (*device.Library, error) {
	own, err := library.ListOwnTypes(ctx, h)
	if err != nil || len(own) == 0 {
		return builtin.Library(), err
	}
	types := make([]device.Type, 0, len(own))
	for _, t := range own {
		types = append(types, device.Type{
			Number: t.Number, Class: device.Class(t.Class),
			Organisation: device.Organisation{Words: t.Words, Bits: t.Bits},
			Function:     t.Function, Package: t.Package, TypicalMilliamps: t.TypicalMA, ClockMHz: t.ClockMHz,
			Ages: t.Ageing, Source: "named by the collection",
		})
	}
	return builtin.Library().With(types), nil
}
