package app_test

import (
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/app/action"
	"frugalheron/app/arrivals"
	"frugalheron/app/evidence"
	"frugalheron/app/files"
	"frugalheron/app/inventory"
	"frugalheron/store/blobs"
)

// A serial in a bill, on a board in store and on a machine: each is met from all sides but within its own
// lot, wherever the board goes.
func TestIdentifiersAreMetOnBoardsInStoreAndInDocuments(t *testing.T) {
	kept, err := blobs.Open(ctx, t.TempDir())
	require.NoError(t, err)
	_, actions := newApp(t)
	actions.WithBlobs(kept)
	machine, err := actions.Inventory.CreateMachine(ctx, curator,
		inventory.MachineInput{Accession: "EH-0142", Name: "Meridian", Serial: "TV2-00817"})
	require.NoError(t, err)
	card, err := actions.Inventory.AddLooseAssembly(ctx, technician, "Loft",
		inventory.AssemblyInput{Title: "Memory card", Serial: "tv2 00817"})
	require.NoError(t, err)
	lot, err := actions.Arrivals.Receive(ctx, curator,
		arrivals.AcquisitionInput{Title: "The pilot office's clear-out", Method: "gift"},
		[]arrivals.LotItemInput{{Kind: "machine", Title: "Meridian"}})
	require.NoError(t, err)
	other, err := actions.Arrivals.Receive(ctx, curator,
		arrivals.AcquisitionInput{Title: "Odds and ends", Method: "gift"}, nil)
	require.NoError(t, err)
	ref := func(kind string, id int64) evidence.RecordRef {
		return evidence.RecordRef{Kind: kind, ID: id}
	}
	met := func(actor action.Actor, of evidence.RecordRef) []string {
		sharedIdentifiers, err := actions.Evidence.SharedIdentifiers(ctx, actor, of)
		require.NoError(t, err)
		names := []string{}
		for _, m := range sharedIdentifiers {
			names = append(names, m.Name+m.Decision)
		}
		return names
	}
	require.Equal(t, []string{"EH-0142 Meridian"}, met(viewer, ref("assembly", card.ID)))
	require.Equal(t, []string{"Memory card"}, met(viewer, ref("machine", machine.ID)))

	// The bill is for staff only until somebody says otherwise; so is what stands in it.
	bill, err := actions.Files.Attach(ctx, curator, files.Owner{AcquisitionID: &lot.ID}, "bill.txt",
		[]byte("One computer, serial no. TV2-00817, 120.00"))
	require.NoError(t, err)
	require.Equal(t, "TV2-00817", bill.Numbers)
	require.Equal(t, []string{"EH-0142 Meridian", "Memory card"}, met(technician, ref("lot", lot.ID)))
	require.Equal(t, []string{}, met(viewer, ref("lot", lot.ID)))
	require.Equal(t, []string{"Memory card"}, met(viewer, ref("machine", machine.ID)))

	// The machine came with that lot: no question. The other lot's list is one.
	_, err = actions.Arrivals.ItemIsMachine(ctx, curator, lot.ID, lot.Version, lot.Things[0].ID, machine.ID)
	require.NoError(t, err)
	require.Equal(t, []string{"Memory card"}, met(technician, ref("lot", lot.ID)))
	list, err := actions.Files.Attach(ctx, curator, files.Owner{AcquisitionID: &other.ID}, "list.pdf",
		[]byte("%PDF-1.4\n%\xe2\xe3\xcf\xd3\ntrailer"))
	require.NoError(t, err)
	require.Empty(t, list.Numbers)
	noted := list.AttachmentInput
	noted.Numbers = "TV2 00817\n\n  12"
	list, err = actions.Files.ChangeAttachment(ctx, technician, list.ID, list.Version, noted)
	require.NoError(t, err)
	require.Equal(t, []string{"Memory card", "Odds and ends"}, met(technician, ref("machine", machine.ID)))

	var invalid *action.Invalid
	decision := evidence.SharedIdentifierDecision{Key: "TV200817", One: ref("lot", other.ID),
		Other:    ref("machine", machine.ID),
		Decision: "dismissed", Reason: "a slip of the pen"}
	require.ErrorIs(t, actions.Evidence.DecideSharedIdentifier(ctx, technician, decision), action.ErrForbidden)
	require.NoError(t, actions.Evidence.DecideSharedIdentifier(ctx, curator, decision))
	require.Equal(t, []string{"Memory card", "Odds and endsdismissed"}, met(technician, ref("machine", machine.ID)))
	decision.One = ref("lot", lot.ID)
	require.ErrorAs(t, actions.Evidence.DecideSharedIdentifier(ctx, curator, decision), &invalid)

	// Voided out and brought back; the card goes into the machine, and is met there no more.
	event, err := actions.Files.VoidAttachment(ctx, curator, list.ID, list.Version)
	require.NoError(t, err)
	require.Equal(t, []string{"Memory card"}, met(technician, ref("machine", machine.ID)))
	require.NoError(t, actions.History.Undo(ctx, curator, event))
	moved, err := actions.Inventory.MoveAssembly(ctx, technician, card.ID, card.Version,
		inventory.Move{To: "machine", MachineID: machine.ID})
	require.NoError(t, err)
	require.Equal(t, []string{"Odds and endsdismissed"}, met(technician, ref("machine", machine.ID)))
	require.Empty(t, met(technician, ref("assembly", card.ID)))
	require.NoError(t, actions.History.Undo(ctx, technician, moved.Event))
	require.Len(t, met(technician, ref("assembly", card.ID)), 3)
	card, err = actions.Inventory.Assembly(ctx, technician, card.ID)
	require.NoError(t, err)
	plain := card.AssemblyInput
	plain.Serial = ""
	_, err = actions.Inventory.ChangeAssembly(ctx, technician, card.ID, card.Version, plain)
	require.NoError(t, err)
	require.Empty(t, met(technician, ref("assembly", card.ID)))
}
