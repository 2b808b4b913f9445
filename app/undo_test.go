package app_test

import (
	"bytes"
	"encoding/json"
	"fmt"
	"image"
	"image/png"
	"regexp"
	"sync"
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/app/action"
	"frugalheron/app/files"
	"frugalheron/app/inventory"
	"frugalheron/store/arrivals"
	"frugalheron/store/blobs"
	"frugalheron/store/evidence"
	storeinventory "frugalheron/store/inventory"
)

var versions = regexp.MustCompile(`"(version|updatedAt|at)":("[^"]*"|\d+),?`)

// Whatever is taken back leaves everything as it was before, but for versions and the history, which tells both.
func TestWhatIsTakenBackLeavesAllAsItWas(t *testing.T) {
	_, deeds := newApp(t)
	kept, err := blobs.Open(ctx, t.TempDir())
	require.NoError(t, err)
	deeds.WithBlobs(kept)
	machine, err := deeds.Inventory.CreateMachine(ctx, curator,
		storeinventory.MachineFields{Accession: "EH-0001", Name: "Meridian", Place: "Loft"})
	require.NoError(t, err)
	added, err := deeds.Sheets.TakeOverSheet(ctx, curator, machine.ID, "== Main board\nU1-U8 4164-15")
	require.NoError(t, err)
	lot, err := deeds.Arrivals.Receive(ctx, curator, arrivals.AcquisitionFields{Title: "Lot", Method: "gift"},
		[]arrivals.LotItemFields{{Kind: "part", Title: "Lead"}})
	require.NoError(t, err)
	said, err := deeds.Evidence.StateEvidence(ctx, curator, machine.ID,
		evidence.StatementFields{Attribute: "memory", Value: "64K", Citation: evidence.Citation{Kind: "firmware"}})
	require.NoError(t, err)
	told, err := deeds.Arrivals.TellCustody(ctx, curator, machine.ID,
		arrivals.CustodyFields{Role: "used-by", Who: "the bath", Dates: "1984/1990",
			Citation: evidence.Citation{Kind: "recalled"}})
	require.NoError(t, err)
	var file bytes.Buffer
	require.NoError(t, png.Encode(&file, image.NewGray(image.Rect(0, 0, 8, 8))))
	picture, err := deeds.Files.Attach(ctx, curator, files.Owner{MachineID: machine.ID}, "photo.png", file.Bytes())
	require.NoError(t, err)

	state := func() string {
		all := []any{}
		add := func(value any, err error) {
			require.NoError(t, err)
			all = append(all, value)
		}
		add(deeds.Inventory.Machine(ctx, curator, machine.ID))
		add(deeds.Sheets.Contents(ctx, curator, machine.ID))
		add(deeds.Bench.Dossier(ctx, curator, machine.ID))
		add(deeds.Arrivals.Lot(ctx, curator, lot.ID))
		add(deeds.Files.Attachments(ctx, curator, files.Owner{MachineID: machine.ID}, 0, 10))
		add(deeds.Inventory.ListMachines(ctx, curator, inventory.MachineList{Limit: 10}))
		add(deeds.Inventory.ListLoose(ctx, curator, "", 0, 10))
		encoded, err := json.Marshal(all)
		require.NoError(t, err)
		return versions.ReplaceAllString(string(encoded), "")
	}
	newest := func() int64 {
		page, err := deeds.History.History(ctx, curator, 0, 0, 1)
		require.NoError(t, err)
		return page.Events[0].ID
	}
	now := func() storeinventory.Machine {
		m, err := deeds.Inventory.Machine(ctx, curator, machine.ID)
		require.NoError(t, err)
		return m
	}
	before := state()
	for name, do := range map[string]func() error{
		"change the record": func() error {
			fields := now().MachineFields
			fields.Maker, fields.Serial = "Tarn & Vole", "TV1-00417"
			_, err := deeds.Inventory.ChangeMachine(ctx, curator, machine.ID, now().Version, fields)
			return err
		},
		"move the machine": func() error {
			_, err := deeds.Inventory.MoveMachine(ctx, curator, machine.ID, now().Version,
				inventory.MachineMove{To: "transit", BoundFor: "the fair"})
			return err
		},
		"move a board": func() error {
			a, err := deeds.Inventory.Assembly(ctx, curator, added[0].ID)
			if err == nil {
				_, err = deeds.Inventory.MoveAssembly(ctx, curator, a.ID, a.Version,
					inventory.Move{To: "place", Place: "Store"})
			}
			return err
		},
		"strike a board": func() error {
			a, err := deeds.Inventory.Assembly(ctx, curator, added[0].ID)
			if err == nil {
				_, err = deeds.Inventory.StrikeAssembly(ctx, curator, a.ID, a.Version)
			}
			return err
		},
		"withdraw a statement": func() error {
			_, err := deeds.Evidence.WithdrawStatement(ctx, curator, said.ID, "misread")
			return err
		},
		"withdraw from the past": func() error {
			_, err := deeds.Arrivals.WithdrawCustody(ctx, curator, told.ID, "misread")
			return err
		},
		"strike a picture": func() error {
			one, err := deeds.Files.Attachment(ctx, curator, picture.ID)
			if err == nil {
				_, err = deeds.Files.StrikeAttachment(ctx, curator, one.ID, one.Version)
			}
			return err
		},
		"change the past": func() error {
			d, err := deeds.Bench.Dossier(ctx, curator, machine.ID)
			if err != nil {
				return err
			}
			fields := d.Chain.Links[0].CustodyFields
			fields.Dates, fields.Who = "1985/1986", "the theatre"
			_, err = deeds.Arrivals.ChangeCustody(ctx, curator, told.ID, d.Chain.Links[0].Version, fields)
			return err
		},
		"change a lot": func() error {
			l, err := deeds.Arrivals.Lot(ctx, curator, lot.ID)
			if err != nil {
				return err
			}
			fields := l.AcquisitionFields
			fields.Note = "two crates"
			_, err = deeds.Arrivals.ChangeAcquisition(ctx, curator, l.ID, l.Version, fields)
			return err
		},
		"take a thing out of a lot": func() error {
			l, err := deeds.Arrivals.Lot(ctx, curator, lot.ID)
			if err == nil {
				_, _, err = deeds.Arrivals.StrikeLotItem(ctx, curator, l.ID, l.Version, l.Things[0].ID)
			}
			return err
		},
	} {
		require.NoError(t, do(), name)
		require.NotEqual(t, before, state(), name)
		event := newest()
		require.ErrorIs(t, deeds.History.Undo(ctx, viewer, event), action.ErrForbidden, name)
		require.NoError(t, deeds.History.Undo(ctx, curator, event), name)
		require.Equal(t, before, state(), name)
		var invalid *action.Invalid
		require.ErrorAs(t, deeds.History.Undo(ctx, curator, event), &invalid, name) // once is enough
	}
}

// Two who want the same at once: one number, one picture, one place in a lot.
func TestTwoAtOnceGetOne(t *testing.T) {
	kept, err := blobs.Open(ctx, t.TempDir())
	require.NoError(t, err)
	_, deeds := newApp(t)
	deeds.WithBlobs(kept)
	lot, err := deeds.Arrivals.Receive(ctx, curator, arrivals.AcquisitionFields{Title: "Lot", Method: "gift"},
		[]arrivals.LotItemFields{{Kind: "machine", Title: "Terminal"}})
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
		_, err := deeds.Inventory.CreateMachine(ctx, curator,
			storeinventory.MachineFields{Accession: "EH-0001", Name: fmt.Sprint("Number ", i)})
		return err
	}))
	require.Equal(t, 1, together(func(i int) error {
		_, err := deeds.Arrivals.ItemBecomesMachine(ctx, curator, lot.ID, lot.Version, lot.Things[0].ID,
			storeinventory.MachineFields{Accession: fmt.Sprintf("EH-01%02d", i), Name: "Terminal"})
		return err
	}))
	page, err := deeds.Inventory.ListMachines(ctx, curator, inventory.MachineList{Limit: 10})
	require.NoError(t, err)
	require.Equal(t, 2, page.Total)
	owner := files.Owner{MachineID: page.Machines[0].ID}
	require.Equal(t, people, together(func(int) error {
		_, err := deeds.Files.Attach(ctx, curator, owner, "note.txt", []byte("found under the lid"))
		return err
	}))
	attached, err := deeds.Files.Attachments(ctx, curator, owner, 0, 10)
	require.NoError(t, err)
	require.Len(t, attached.Attachments, 1)
	require.Equal(t, 1, together(func(int) error {
		now, err := deeds.Inventory.Machine(ctx, curator, owner.MachineID)
		require.NoError(t, err)
		_, err = deeds.Inventory.MoveMachine(ctx, curator, owner.MachineID, now.Version,
			inventory.MachineMove{To: "place", Place: "Loft"})
		return err
	}))
}
