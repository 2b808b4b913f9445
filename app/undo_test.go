package app_test

import (
	"fmt"
	"sync"
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/app/arrivals"
	"frugalheron/app/files"
	"frugalheron/app/inventory"
	"frugalheron/store/blobs"
)

// Two who want the same at once: one number, one picture, one place in a lot.
func TestTwoAtOnceGetOne(t *testing.T) {
	kept, err := blobs.Open(ctx, t.TempDir())
	require.NoError(t, err)
	_, actions := newApp(t)
	actions.WithBlobs(kept)
	lot, err := actions.Arrivals.Receive(ctx, curator, arrivals.AcquisitionInput{Title: "Lot", Method: "gift"},
		[]arrivals.LotItemInput{{Kind: "machine", Title: "Terminal"}})
	require.NoError(t, err)
	const people = 6
	together := func(do func(i int) error) (done int) {
		var all sync.WaitGroup
		var mu sync.Mutex
		for i := range people {
			all.Go(func() {
				if do(i) == nil {
					mu.Lock()
					done++
					mu.Unlock()
				}
			})
		}
		all.Wait()
		return done
	}
	require.Equal(t, 1, together(func(i int) error {
		_, err := actions.Inventory.CreateMachine(ctx, curator,
			inventory.MachineInput{Accession: "EH-0001", Name: fmt.Sprint("Number ", i)})
		return err
	}))
	require.Equal(t, 1, together(func(i int) error {
		_, err := actions.Arrivals.ItemBecomesMachine(ctx, curator, lot.ID, lot.Version, lot.Things[0].ID,
			inventory.MachineInput{Accession: fmt.Sprintf("EH-01%02d", i), Name: "Terminal"})
		return err
	}))
	page, err := actions.Inventory.ListMachines(ctx, curator, inventory.MachineList{Limit: 10})
	require.NoError(t, err)
	require.Equal(t, 2, page.Total)
	owner := files.Owner{MachineID: &page.Machines[0].ID}
	require.Equal(t, people, together(func(int) error {
		_, err := actions.Files.Attach(ctx, curator, owner, "note.txt", []byte("found under the lid"))
		return err
	}))
	attached, err := actions.Files.Attachments(ctx, curator, owner, 0, 10)
	require.NoError(t, err)
	require.Len(t, attached.Attachments, 1)
	require.Equal(t, 1, together(func(int) error {
		now, err := actions.Inventory.Machine(ctx, curator, *owner.MachineID)
		require.NoError(t, err)
		_, err = actions.Inventory.MoveMachine(ctx, curator, *owner.MachineID, now.Version,
			inventory.MachineMove{To: "place", Place: "Loft"})
		return err
	}))
}
