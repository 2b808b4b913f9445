package app_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/app/action"
	"frugalheron/app/files"
	"frugalheron/app/inventory"
	"frugalheron/app/people"
	"frugalheron/store/blobs"
)

// The picture by which a machine is known is the one that was chosen last; else one of its outside, the front first;
// never one that is for staff.
func TestByWhichPictureAMachineIsKnown(t *testing.T) {
	_, actions := newApp(t)
	actions.WithBlobs(must(blobs.Open(ctx, t.TempDir())))
	machine := must(actions.Inventory.CreateMachine(ctx, curator, machineOf("EH-1", "", "")))
	known := func() int64 {
		list := inventory.MachineList{MachineFilters: inventory.MachineFilters{IDs: []int64{machine.ID}}, Limit: 5}
		page := must(actions.Inventory.ListMachines(ctx, viewer, list))
		require.Len(t, page.Machines, 1)
		return page.Machines[0].PictureID
	}
	shade := uint8(0)
	picture := func(about files.AttachmentInput) int64 {
		shade += 40
		owner := files.Owner{MachineID: &machine.ID}
		one := must(actions.Files.Attach(ctx, technician, owner, "x.png", shadedPNG(t, shade)))
		must(actions.Files.ChangeAttachment(ctx, technician, one.ID, one.Version, about))
		return one.ID
	}
	require.Zero(t, known())
	board := picture(files.AttachmentInput{View: "board top"})
	require.Equal(t, board, known())
	rear := picture(files.AttachmentInput{View: "rear"})
	require.Equal(t, rear, known())
	picture(files.AttachmentInput{View: "front", StaffOnly: true})
	require.Equal(t, rear, known())
	front := picture(files.AttachmentInput{View: "front"})
	require.Equal(t, front, known())

	choose := func(id int64, isChosen bool) {
		now := must(actions.Files.Attachment(ctx, curator, id))
		now.Portrait = isChosen
		must(actions.Files.ChangeAttachment(ctx, curator, id, now.Version, now.AttachmentInput))
	}
	choose(board, true)
	choose(rear, true)
	require.Equal(t, rear, known(), "the one chosen last")
	choose(rear, false)
	require.Equal(t, board, known())
	now := must(actions.Files.Attachment(ctx, curator, board))
	must(actions.Files.VoidAttachment(ctx, curator, board, now.Version))
	require.Equal(t, front, known())
}

// The list as a file has all machines of it, however many pages that takes, and no private person, whoever asks.
func TestTheListAsAFile(t *testing.T) {
	_, actions := newApp(t)
	must(actions.People.AddParty(ctx, curator, people.PartyInput{Name: "Jory Quill", Kind: "person",
		Role: "a neighbour", Private: true}))
	for _, number := range []string{"EH-3", "EH-1", "EH-2"} {
		fields := machineOf(number, "", "")
		fields.Name, fields.Place = "=Meridian of Jory Quill", "Loft"
		must(actions.Inventory.CreateMachine(ctx, curator, fields))
	}
	for _, who := range []action.Actor{curator, viewer} {
		file := string(must(actions.Inventory.ExportMachines(ctx, who, inventory.MachineList{})).Data)
		lines := strings.Split(strings.TrimSpace(file), "\n")
		require.Len(t, lines, 4)
		require.True(t, strings.HasPrefix(lines[0], "accession,name,"))
		require.True(t, strings.HasPrefix(lines[1], "EH-1,"), lines[1])
		require.NotContains(t, strings.Join(lines, " "), "Quill")
		require.NotContains(t, lines[1], ",=", "what begins like a formula is text")
	}
	inLoft := inventory.MachineFilters{Places: []string{"Loft"}}
	down := inventory.MachineList{MachineFilters: inLoft, Descending: true}
	file := string(must(actions.Inventory.ExportMachines(ctx, curator, down)).Data)
	require.True(t, strings.HasPrefix(strings.Split(file, "\n")[1], "EH-3,"), file)
}
